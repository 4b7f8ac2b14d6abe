import { inOwnUnit } from './counted'
import { SaidFigure, type SaidProps } from './SaidFigure'

type Props = Omit<SaidProps, 'kind' | 'unit' | 'value' | 'optional' | 'onChange'> & {
  kind?: SaidProps['kind']
  /** Nothing yet, where a thing is new. */
  value: number | undefined
  onChange: (value: number) => void
}

/**
 * A number typed by hand, in the words of its unit. What is half typed stays as typed; only what was understood goes out.
 * Whether a number can be is for the program to say, so nothing is corrected or clamped here.
 */
export function Figure({ kind, suffix, value, onChange, ...rest }: Props) {
  const { shown, kept, ...of } = inOwnUnit(suffix)
  return (
    <SaidFigure
      {...of}
      {...rest}
      kind={kind ?? of.kind}
      value={shown(value)}
      onChange={(value) => value !== undefined && onChange(kept(value))}
    />
  )
}
