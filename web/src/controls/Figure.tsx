import { counted } from './counted'
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
export function Figure({ kind, suffix, onChange, ...rest }: Props) {
  const of = counted(suffix)
  return (
    <SaidFigure
      {...rest}
      kind={kind ?? of.kind}
      unit={of.unit}
      suffix={suffix}
      onChange={(value) => value !== undefined && onChange(value)}
    />
  )
}
