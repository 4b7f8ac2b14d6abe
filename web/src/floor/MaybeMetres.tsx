import { MaybeFigure } from '../controls/MaybeFigure'

type Props = {
  label: string
  placeholder: string
  step?: number
  value: number | null | undefined
  onChange: (metres: number | undefined) => void
}

/** Metres that need not be known. */
export function MaybeMetres({ step = 0.1, ...rest }: Props) {
  return <MaybeFigure suffix=" m" step={step} {...rest} />
}
