import type { FloorAnswer, Shot } from '../api/client'
import { MaybeFigure } from '../controls/MaybeFigure'
import { MaybeMetres } from './MaybeMetres'

type Props = {
  seen: FloorAnswer
  light: number
  shot: Shot
  onChange: (change: Pick<Shot, 'lights'>) => void
}

/** What the ballast of the light in hand is worked out from: what is not known is taken for what is usual. */
export function StandInWind({ seen, light, shot, onChange }: Props) {
  const [told, of] = [seen.lights[light]!, shot.lights[light]!]
  const put = (change: Partial<typeof of>) =>
    onChange({ lights: shot.lights.with(light, { ...of, ...change }) })
  return (
    <>
      <MaybeFigure
        label={`${told.label}, stand`}
        suffix=" kg"
        step={0.5}
        placeholder={`usual ${told.stand_kg}`}
        value={of.stand_kg}
        onChange={(stand_kg) => put({ stand_kg })}
      />
      <MaybeMetres
        label="Feet from column"
        placeholder={`usual ${told.feet_m}`}
        value={of.feet_m}
        onChange={(feet_m) => put({ feet_m })}
      />
    </>
  )
}
