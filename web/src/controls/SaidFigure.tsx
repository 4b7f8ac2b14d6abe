import { TextInput, type TextInputProps } from '@mantine/core'
import { useEffect, useRef, useState } from 'react'
import { flushSync } from 'react-dom'
import { answered, client, type FigureKind } from '../api/client'
import { reading } from './reading'

/** A pause in typing after which it is worth asking, in ms. */
const PAUSE = 80
/** What needs nobody to be understood. */
const PLAIN = /^-?\d+(\.\d+)?$/

export type SaidProps = Omit<TextInputProps, 'value' | 'onChange' | 'step'> & {
  kind: FigureKind
  /** The unit that is counted in, as the program names it. */
  unit: string
  /** The same as it stands behind the figure. */
  suffix?: string | undefined
  value: number | undefined
  /** An empty field says that it is not known. */
  optional?: boolean
  /** Digits behind the point that are shown; what is kept has all of them. */
  decimals?: number
  /** What an arrow key turns it by. */
  step?: number | undefined
  onChange: (value: number | undefined) => void
}

/** A power is a fraction wherever it is one; everything else is a figure with its unit. */
const written = (value: number | undefined, suffix: string, kind: FigureKind, decimals = 4) => {
  if (value === undefined) return ''
  const below = Math.round(1 / value)
  if (kind === 'power' && value > 0 && Math.abs(below * value - 1) < 1e-9) return `1/${below}`
  return `${+value.toFixed(kind === 'power' ? 6 : decimals)}${suffix}`
}

/** A figure typed as it is said, in whatever unit: what it was understood to be stands under it, and so does what it cannot be. */
export function SaidFigure({
  kind,
  unit,
  suffix = '',
  value,
  optional = false,
  decimals,
  step,
  error,
  onChange,
  ...rest
}: SaidProps) {
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

  /** Without the unit that stood there before: some are words of ours that mean nothing elsewhere. */
  const bare = (text: string) => {
    const without = text.endsWith(suffix.trim())
      ? text.slice(0, text.length - suffix.trim().length).trim()
      : text
    return PLAIN.test(without) || unit === '' ? without : text
  }
  // What is read a second time, on leaving, has gone out before.
  const gone = useRef(value)
  const send = (value: number | undefined) => {
    if (value === gone.current) return
    gone.current = value
    latest.current(value)
  }
  const hear = (value: number | undefined, words?: string) => {
    setHeard(words === undefined ? {} : { words })
    send(value)
  }
  /** Whether it was read; of several askings the last one counts. */
  const read = async (typed: string): Promise<boolean> => {
    const text = bare(typed.trim())
    const own = ++asked.current
    if (text === '' && optional) hear(undefined)
    else if (PLAIN.test(text)) hear(Number(text))
    else {
      try {
        const { value } = await answered(client.POST('/api/said', { body: { kind, text, unit } }))
        if (own !== asked.current) return false
        flushSync(() => hear(value, `= ${written(value, suffix, kind)}`))
      } catch (failure) {
        if (own !== asked.current) return false
        flushSync(() => {
          setHeard({ wrong: (failure as Error).message })
          send(before.current)
        })
        return false
      }
    }
    return true
  }
  const typed = (text: string) => {
    if (raw === undefined) before.current = gone.current = value
    setRaw(text)
    clearTimeout(timer.current)
    if (PLAIN.test(bare(text.trim()))) void read(text)
    else timer.current = setTimeout(() => void reading(read(text)), PAUSE)
  }
  return (
    <TextInput
      size="xs"
      autoComplete="off"
      inputWrapperOrder={['label', 'input', 'description', 'error']}
      {...(optional && { placeholder: 'not known' })}
      {...rest}
      value={raw ?? written(value, suffix, kind, decimals)}
      description={heard.words ?? rest.description}
      error={heard.wrong ?? error}
      data-unclear={heard.wrong ? true : undefined}
      onChange={(event) => typed(event.currentTarget.value)}
      onBlur={() => {
        if (raw === undefined) return
        clearTimeout(timer.current)
        // What was typed last is read, whoever is quicker; what it cannot be stays to be seen.
        void reading(read(raw)).then((understood) => {
          if (!understood) return
          setRaw(undefined)
          setHeard({})
        })
      }}
      onKeyDown={(event) => {
        rest.onKeyDown?.(event)
        // What Enter sends is what was typed last.
        if (event.key === 'Enter' && raw !== undefined) {
          clearTimeout(timer.current)
          void reading(read(raw))
        }
        const by = { ArrowUp: step ?? 1, ArrowDown: -(step ?? 1) }[event.key]
        if (by === undefined) return
        event.preventDefault()
        clearTimeout(timer.current)
        asked.current += 1
        setRaw(undefined)
        setHeard({})
        onChange(+((value ?? 0) + by).toFixed(4))
      }}
    />
  )
}
