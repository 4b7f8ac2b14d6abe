import { NumberInput, type NumberInputProps } from '@mantine/core'
import { useEffect, useState } from 'react'

type Props = Omit<NumberInputProps, 'value' | 'onChange'> & {
  value: number
  onChange: (value: number) => void
}

/**
 * A number typed by hand. What is half typed stays as typed; only whole numbers go out. Whether a number can be is for the
 * program to say, so nothing is corrected or clamped here.
 */
export function Figure({ value, onChange, ...rest }: Props) {
  const [raw, setRaw] = useState<string | number>(value)
  useEffect(() => setRaw((raw) => (Number(raw) === value && raw !== '' ? raw : value)), [value])
  return (
    <NumberInput
      size="xs"
      decimalScale={4}
      {...rest}
      value={raw}
      onChange={(typed) => {
        setRaw(typed)
        const number = typeof typed === 'number' ? typed : Number.parseFloat(typed)
        if (typed !== '' && typed !== '-' && Number.isFinite(number)) onChange(number)
      }}
    />
  )
}
