import { TextInput, type TextInputProps } from '@mantine/core'
import { useRef } from 'react'
import { answered, client, type FigureKind } from '../api/client'
import { useHeard } from './useHeard'

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
  // What stood here before anything was typed: what cannot be read changes nothing, its beginning neither.
  const before = useRef(value)
  // What is read a second time, on leaving, has gone out before.
  const gone = useRef(value)
  const send = (value: number | undefined) => {
    if (value === gone.current) return
    gone.current = value
    onChange(value)
  }
  /** Without the unit that stood there before: some are words of ours that mean nothing elsewhere. */
  const bare = (text: string) => {
    const without = text.endsWith(suffix.trim())
      ? text.slice(0, text.length - suffix.trim().length).trim()
      : text
    return PLAIN.test(without) || unit === '' ? without : text
  }
  const said = async (text: string) => {
    const { value } = await answered(client.POST('/api/said', { body: { kind, text, unit } }))
    return { value, words: `= ${written(value, suffix, kind)}` }
  }
  const heard = useHeard<number | undefined>({
    ask: (typed) => {
      const text = bare(typed.trim())
      if (text === '' && optional) return { value: undefined }
      return PLAIN.test(text) ? { value: Number(text) } : said(text)
    },
    onTake: send,
    onRefuse: () => send(before.current),
  })
  const typed = (text: string) => {
    if (heard.raw === undefined) before.current = gone.current = value
    heard.type(text, PLAIN.test(bare(text.trim())))
  }
  return (
    <TextInput
      size="xs"
      autoComplete="off"
      inputWrapperOrder={['label', 'input', 'description', 'error']}
      {...(optional && { placeholder: 'not known' })}
      {...rest}
      value={heard.raw ?? written(value, suffix, kind, decimals)}
      description={heard.words ?? rest.description}
      error={heard.wrong ?? error}
      data-unclear={heard.wrong ? true : undefined}
      onChange={(event) => typed(event.currentTarget.value)}
      onBlur={heard.leave}
      onKeyDown={(event) => {
        rest.onKeyDown?.(event)
        if (event.key === 'Enter') heard.enter()
        const by = { ArrowUp: step ?? 1, ArrowDown: -(step ?? 1) }[event.key]
        if (by === undefined) return
        event.preventDefault()
        heard.drop()
        onChange(+((value ?? 0) + by).toFixed(4))
      }}
    />
  )
}
