import { TextInput, type TextInputProps } from '@mantine/core'
import { useEffect, useRef, useState } from 'react'
import { answered, client, type FigureKind } from '../api/client'

/** A pause in typing after which it is worth asking, in ms. */
const PAUSE = 80
/** What needs nobody to be understood. */
const PLAIN = /^-?\d+(\.\d+)?$/

type Props = Omit<TextInputProps, 'value' | 'onChange'> & {
  kind: FigureKind
  /** The unit that is counted in, as it stands behind the figure. */
  suffix: string
  value: number
  /** What an arrow key turns it by. */
  step: number
  onChange: (value: number) => void
}

const written = (value: number, suffix: string) => `${+value.toFixed(4)}${suffix}`

/** A figure typed as it is said, in whatever unit: what it was understood to be stands under it, and so does what it cannot be. */
export function SaidFigure({ kind, suffix, value, step, error, onChange, ...rest }: Props) {
  const [raw, setRaw] = useState<string>()
  const [heard, setHeard] = useState<{ words?: string; wrong?: string }>({})
  // What stood here before anything was typed: what cannot be read changes nothing, its beginning neither.
  const before = useRef(value)
  const asked = useRef(0)
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined)

  // The part may have changed elsewhere before an answer is here.
  const latest = useRef(onChange)
  useEffect(() => {
    latest.current = onChange
  })

  /** Whether it was read; of several askings the last one counts. */
  const read = async (text: string): Promise<boolean> => {
    const own = ++asked.current
    try {
      const plain = PLAIN.test(text)
      const { value } = plain
        ? { value: Number(text) }
        : await answered(client.POST('/api/said', { body: { kind, text } }))
      if (own !== asked.current) return false
      setHeard(plain ? {} : { words: `= ${written(value, suffix)}` })
      latest.current(value)
      return true
    } catch (failure) {
      if (own !== asked.current) return false
      setHeard({ wrong: (failure as Error).message })
      latest.current(before.current)
      return false
    }
  }
  const typed = (text: string) => {
    if (raw === undefined) before.current = value
    setRaw(text)
    clearTimeout(timer.current)
    timer.current = setTimeout(() => void read(text.trim()), PAUSE)
  }
  return (
    <TextInput
      size="xs"
      autoComplete="off"
      inputWrapperOrder={['label', 'input', 'description', 'error']}
      {...rest}
      value={raw ?? written(value, suffix)}
      description={heard.words ?? rest.description}
      error={heard.wrong ?? error}
      onChange={(event) => typed(event.currentTarget.value)}
      onBlur={() => {
        if (raw === undefined) return
        clearTimeout(timer.current)
        // What was typed last is read, whoever is quicker; what it cannot be stays to be seen.
        void read(raw.trim()).then((understood) => {
          if (!understood) return
          setRaw(undefined)
          setHeard({})
        })
      }}
      onKeyDown={(event) => {
        const by = { ArrowUp: step, ArrowDown: -step }[event.key]
        if (by === undefined) return
        event.preventDefault()
        clearTimeout(timer.current)
        asked.current += 1
        setRaw(undefined)
        setHeard({})
        onChange(+(value + by).toFixed(4))
      }}
    />
  )
}
