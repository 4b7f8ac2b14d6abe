import { Button, FileButton, type ButtonProps } from '@mantine/core'
import { useRef } from 'react'

type Props = ButtonProps & { accept: string; onFile: (file: File) => void; children: string }

/** A button that takes a file, and the same file again once it has been put right. */
export function FilePick({ accept, onFile, children, ...button }: Props) {
  const reset = useRef<() => void>(null)
  return (
    <FileButton
      accept={accept}
      resetRef={reset}
      onChange={(file) => {
        if (!file) return
        onFile(file)
        reset.current?.()
      }}
    >
      {(props) => (
        <Button size="compact-sm" radius="xl" variant="default" {...button} {...props}>
          {children}
        </Button>
      )}
    </FileButton>
  )
}
