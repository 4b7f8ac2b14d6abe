import type { FloorAnswer, Shot } from '../api/client'
import { gripsOf } from './grips'
import { Knob, type Sheet } from './Knob'
import classes from './Floor.module.css'

type Props = {
  sheet: Sheet
  seen: FloorAnswer
  /** Whether the background is on the sheet. */
  behind: boolean
  onSketch: (shot: Shot) => void
}

/** Everything on the floor but the lights, taken hold of and carried. */
export function Handles({ sheet, seen, behind, onSketch }: Props) {
  return gripsOf(seen, behind).map(({ name, says, at, to, away, adds }) => (
    <Knob
      key={name}
      {...sheet}
      grip={name}
      label={`${name}, ${says}`}
      at={at}
      reach={adds ? 10 : 15}
      onCarry={(x, y) => onSketch(to(x, y))}
      onRemove={away && (() => onSketch(away()))}
    >
      <circle r={adds ? 2.5 : 4.5} className={classes.knob} />
    </Knob>
  ))
}
