import { Switch } from '@mantine/core'
import type { FloorAnswer, Shot } from '../api/client'
import { MaybeFigure } from '../controls/MaybeFigure'
import { MaybeMetres } from './MaybeMetres'
import { useWhole } from './whole'
import classes from './Floor.module.css'

type Put = (change: Partial<Shot>) => void
type Props = { seen: FloorAnswer; shot: Shot; onChange: Put }

/** The light of all on what is behind, and the sheet. */
export function Behind({ seen }: { seen: FloorAnswer }) {
  return (
    <section className={classes.panel} aria-label="Background">
      <p className={classes.says} data-testid="behind">
        {seen.behind?.says ?? 'Nothing of what is behind is in the frame.'}
      </p>
      {seen.sheet && <p className={classes.says}>{seen.sheet.says}</p>}
      <ul className={classes.shadows} aria-label="Shadows">
        {seen.lights.map(
          (light) =>
            light.shadow && (
              <li key={light.label + light.bearing_deg}>
                Shadow of {light.label}: {light.shadow}
              </li>
            ),
        )}
      </ul>
    </section>
  )
}

type Ends = { fromRight: number; fromAway: number; toRight: number; toAway: number; speed: number }
const ENDS = ['fromRight', 'fromAway', 'toRight', 'toAway', 'speed'] as const
const endsOf = (way: Shot['way']): Ends | undefined =>
  way
    ? {
        fromRight: way.from_m[0]!,
        fromAway: way.from_m[1]!,
        toRight: way.to_m[0]!,
        toAway: way.to_m[1]!,
        speed: way.speed_m_s,
      }
    : undefined

/** The way somebody comes along, and when to press. */
export function Way({ seen, shot, onChange }: Props) {
  const { known, put } = useWhole<Ends>(endsOf(shot.way), ENDS, (ends) =>
    onChange({
      way: ends && {
        camera_goes_along: shot.way?.camera_goes_along,
        from_m: [ends.fromRight, ends.fromAway],
        to_m: [ends.toRight, ends.toAway],
        speed_m_s: ends.speed,
      },
    }),
  )
  return (
    <section className={classes.panel} aria-label="Way">
      <p className={classes.says} data-testid="along">
        {shot.way
          ? seen.along?.says
          : 'Somebody comes through the light: from where to where, from the mark, and how fast?'}
      </p>
      <div className={classes.fields}>
        <MaybeMetres
          label="From, right"
          placeholder="−4"
          step={0.5}
          value={known.fromRight}
          onChange={(fromRight) => put({ fromRight })}
        />
        <MaybeMetres
          label="From, away"
          placeholder="0"
          step={0.5}
          value={known.fromAway}
          onChange={(fromAway) => put({ fromAway })}
        />
        <MaybeFigure
          label="Speed"
          suffix=" m/s"
          placeholder="18 km/h"
          step={0.5}
          value={known.speed === undefined ? undefined : +known.speed.toFixed(2)}
          onChange={(speed) => put({ speed })}
        />
        <MaybeMetres
          label="To, right"
          placeholder="4"
          step={0.5}
          value={known.toRight}
          onChange={(toRight) => put({ toRight })}
        />
        <MaybeMetres
          label="To, away"
          placeholder="0"
          step={0.5}
          value={known.toAway}
          onChange={(toAway) => put({ toAway })}
        />
      </div>
      {shot.way && (
        <Switch
          size="xs"
          mt="xs"
          label="The camera goes along, and what sits on it"
          checked={!!shot.way.camera_goes_along}
          onChange={(event) =>
            onChange({ way: { ...shot.way!, camera_goes_along: event.currentTarget.checked } })
          }
        />
      )}
    </section>
  )
}

const WALLS = [
  ['left_m', 'Wall, left'],
  ['right_m', 'Wall, right'],
  ['near_m', 'Wall, camera'],
  ['far_m', 'Wall, behind'],
  ['ceiling_m', 'Ceiling'],
] as const
const SIDES = WALLS.map(([side]) => side)

/** The sun by the compass, and the walls. */
export function SunAndRoom({ seen, shot, onChange }: Props) {
  const { sky } = shot
  const { known, put } = useWhole(shot.room, SIDES, (room) => onChange({ room }))
  return (
    <section className={classes.panel} aria-label="Sun and room">
      {seen.sun?.says.map((says) => (
        <p key={says} className={classes.says}>
          {says}
        </p>
      ))}
      {!sky && (
        <p className={classes.says}>No sun is told: give place and time under the sky on the Bench.</p>
      )}
      {!shot.room && (
        <p className={classes.says}>A room is one when all of its walls are known, from the mark.</p>
      )}
      <div className={classes.fields}>
        {sky && (
          <MaybeFigure
            label="Camera looks"
            suffix="°"
            step={5}
            placeholder="by compass"
            value={sky.camera_looks_deg}
            onChange={(camera_looks_deg) => onChange({ sky: { ...sky, camera_looks_deg } })}
          />
        )}
        {WALLS.map(([side, label]) => (
          <MaybeMetres
            key={side}
            label={label}
            placeholder={side === 'left_m' || side === 'near_m' ? 'negative' : 'none'}
            step={0.5}
            value={known[side]}
            onChange={(to) => put({ [side]: to })}
          />
        ))}
      </div>
    </section>
  )
}
