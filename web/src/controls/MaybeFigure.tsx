import { counted } from './counted'
import { SaidFigure, type SaidProps } from './SaidFigure'

type Props = Omit<SaidProps, 'kind' | 'unit' | 'value' | 'optional'> & {
  kind?: SaidProps['kind']
  value: number | null | undefined
}

/** A number that need not be known: an empty field says so. */
export function MaybeFigure({ kind, suffix, value, ...rest }: Props) {
  const of = counted(suffix)
  return (
    <SaidFigure
      {...rest}
      kind={kind ?? of.kind}
      unit={of.unit}
      suffix={suffix}
      value={value ?? undefined}
      optional
    />
  )
}
