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
  const latest = useRef(onChange)
  useEffect(() => {
    latest.current = onChange
  })
  useEffect(() => {
    if (raw === undefined) return
    // Half typed is not wrong yet.
    const text = raw.trim()
    if (text === '' || PLAIN.test(text) || text === written(value, suffix)) return setHeard({})
    const timer = setTimeout(() => {
      answered(client.POST('/api/said', { body: { kind, text } }))
        .then(({ value }) => {
          setHeard({ words: `= ${written(value, suffix)}` })
          latest.current(value)
        })
        .catch((failure: Error) => setHeard({ wrong: failure.message }))
    }, PAUSE)
    return () => clearTimeout(timer)
    // What comes back from the program is not typed.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [raw, kind, suffix])
  return (
    <TextInput
      size="xs"
      autoComplete="off"
      inputWrapperOrder={['label', 'input', 'description', 'error']}
      {...rest}
      value={raw ?? written(value, suffix)}
      description={heard.words ?? rest.description}
      error={heard.wrong ?? error}
      onChange={(event) => {
        const text = event.currentTarget.value
        setRaw(text)
        if (PLAIN.test(text.trim())) onChange(Number(text))
      }}
      onBlur={() => {
        setRaw(undefined)
        setHeard({})
      }}
      onKeyDown={(event) => {
        const by = { ArrowUp: step, ArrowDown: -step }[event.key]
        if (by === undefined) return
        event.preventDefault()
        setRaw(undefined)
        onChange(+(value + by).toFixed(4))
      }}
    />
  )
}
