import type { FloorAnswer } from '../api/client'
import { Figure } from '../controls/Figure'
import classes from './Floor.module.css'

type Place = FloorAnswer['camera']

/** Figures as they are taped and read, one a line. */
export function Taped({ rows }: { rows: readonly (readonly [string, string])[] }) {
  return (
    <dl className={classes.figures}>
      {rows.map(([name, value]) => (
        <div key={name}>
          <dt>{name}</dt>
          <dd className="mono">{value}</dd>
        </div>
      ))}
    </dl>
  )
}

const SIDES = [
  ['x_m', 'Right'],
  ['y_m', 'Away'],
  ['z_m', 'Up'],
] as const

/** A place on the floor, typed. */
export function PlaceFields({ at, onPut }: { at: Place; onPut: (change: Partial<Place>) => void }) {
  return (
    <div className={classes.fields}>
      {SIDES.map(([side, label]) => (
        <Figure
          key={side}
          label={label}
          suffix=" m"
          step={0.1}
          value={+at[side].toFixed(2)}
          onChange={(metres) => onPut({ [side]: metres })}
        />
      ))}
    </div>
  )
}
