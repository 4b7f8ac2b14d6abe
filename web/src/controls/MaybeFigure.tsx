import { inOwnUnit } from './counted'
import { SaidFigure, type SaidProps } from './SaidFigure'

type Props = Omit<SaidProps, 'kind' | 'unit' | 'value' | 'optional'> & {
  kind?: SaidProps['kind']
  value: number | null | undefined
}

/** A number that need not be known: an empty field says so. */
export function MaybeFigure({ kind, suffix, value, onChange, ...rest }: Props) {
  const { shown, kept, ...of } = inOwnUnit(suffix)
  return (
    <SaidFigure
      {...of}
      {...rest}
      kind={kind ?? of.kind}
      value={shown(value ?? undefined)}
      onChange={(value) => onChange(value === undefined ? undefined : kept(value))}
      optional
    />
  )
}
