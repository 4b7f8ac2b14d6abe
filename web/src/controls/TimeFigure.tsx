import { TextInput, type TextInputProps } from '@mantine/core'
import { useRef, useState } from 'react'
import { flushSync } from 'react-dom'
import { answered, client } from '../api/client'
import { reading } from './reading'

/** A pause in typing after which it is worth asking, in ms. */
const PAUSE = 80

type Props = Omit<TextInputProps, 'value' | 'onChange'> & {
  /** As a camera's dial writes it. */
  value: string | undefined
  onChange: (value: string | undefined) => void
}

/**
 * A time of a camera, typed as it is said and kept as its dial writes it. What could be two things, 60 on a dial, is asked
 * back at the field and goes nowhere; an empty field goes out as nothing.
 */
export function TimeFigure({ value, error, onChange, ...rest }: Props) {
  const [raw, setRaw] = useState<string>()
  const [heard, setHeard] = useState<{ words?: string; wrong?: string }>({})
  const asked = useRef(0)
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined)

  /** Whether it was read; of several askings the last one counts. */
  const read = async (text: string): Promise<boolean> => {
    const own = ++asked.current
    if (text.trim() === '') {
      setHeard({})
      if (value !== undefined) onChange(undefined)
      return true
    }
    try {
      const { dial } = await answered(client.POST('/api/said', { body: { kind: 'time', text } }))
      if (own !== asked.current) return false
      flushSync(() => {
        setHeard(dial === text.trim() ? {} : { words: `= ${dial}` })
        if (dial !== value) onChange(dial ?? undefined)
      })
      return true
    } catch (failure) {
      if (own === asked.current) flushSync(() => setHeard({ wrong: (failure as Error).message }))
      return false
    }
  }
  const settle = (text: string) => {
    clearTimeout(timer.current)
    return reading(read(text))
  }
  return (
    <TextInput
      size="xs"
      autoComplete="off"
      spellCheck={false}
      inputWrapperOrder={['label', 'input', 'description', 'error']}
      {...rest}
      value={raw ?? value ?? ''}
      description={heard.words ?? rest.description}
      error={heard.wrong ?? error}
      data-unclear={heard.wrong ? true : undefined}
      onChange={(event) => {
        const text = event.currentTarget.value
        setRaw(text)
        clearTimeout(timer.current)
        timer.current = setTimeout(() => void reading(read(text)), PAUSE)
      }}
      onBlur={() => {
        if (raw === undefined) return
        void settle(raw).then((understood) => {
          if (!understood) return
          setRaw(undefined)
          setHeard({})
        })
      }}
      onKeyDown={(event) => {
        rest.onKeyDown?.(event)
        if (event.key === 'Enter' && raw !== undefined) void settle(raw)
      }}
    />
  )
}
