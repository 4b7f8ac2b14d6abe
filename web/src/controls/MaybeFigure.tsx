import { NumberInput, type NumberInputProps } from '@mantine/core'
import { useEffect, useState } from 'react'

type Props = Omit<NumberInputProps, 'value' | 'onChange'> & {
  value: number | null | undefined
  onChange: (value: number | undefined) => void
}

/** A number that need not be known: an empty field says so. Half a number goes nowhere, as everywhere. */
export function MaybeFigure({ value, onChange, ...rest }: Props) {
  const [raw, setRaw] = useState<string | number>(value ?? '')
  useEffect(() => setRaw((raw) => (raw !== '' && Number(raw) === value ? raw : (value ?? ''))), [value])
  return (
    <NumberInput
      size="xs"
      decimalScale={4}
      placeholder="not known"
      {...rest}
      value={raw}
      onChange={(typed) => {
        setRaw(typed)
        const number = typeof typed === 'number' ? typed : Number.parseFloat(typed)
        if (typed === '') onChange(undefined)
        else if (Number.isFinite(number)) onChange(number)
      }}
    />
  )
}
