import type { FloorAnswer } from '../api/client'
import { length } from '../words/figures'
import { Knob, type Sheet } from './Knob'
import { tenth } from './steps'
import type { LampTo } from './useFloor'
import classes from './Floor.module.css'

type Props = {
  sheet: Sheet
  seen: FloorAnswer
  onCarry: (to: LampTo) => void
}

/** Steady lamps on the sheet, with a line to whom they shine at: carried as the lights are. */
export function LampKnobs({ sheet, seen, onCarry }: Props) {
  const { x, y } = sheet
  return seen.lamps.map(({ name, on, stands }, lamp) => {
    if (!stands) return null
    const { x_m, y_m, z_m } = stands.at
    const wrong = on && stands.in_picture.length > 0
    return (
      <g
        key={lamp}
        className={classes.lamp}
        data-off={!on || undefined}
        data-wrong={wrong || undefined}
        data-floor-lamp={name}
      >
        <line
          x1={x(x_m)}
          y1={y(y_m)}
          x2={x(seen.chest_m[0]!)}
          y2={y(seen.chest_m[1]!)}
          className={classes.axis}
        />
        <g transform={`translate(${x(x_m)} ${y(y_m)})`}>
          <circle r={5} className={classes.bulb} />
          <path
            d="M0 -9V-13M0 9V13M-9 0H-13M9 0H13M6.4 -6.4L9.2 -9.2M-6.4 -6.4L-9.2 -9.2M6.4 6.4L9.2 9.2M-6.4 6.4L-9.2 9.2"
            className={classes.shines}
          />
          <text y={28} className={classes.label}>
            {name}
          </text>
        </g>
        <Knob
          {...sheet}
          grip={`Lamp ${lamp + 1}`}
          label={`${name}, ${length(stands.to_mark_m)} from the mark at ${stands.clock} o'clock${wrong ? ', in the picture' : ''}`}
          at={[x_m, y_m]}
          reach={16}
          onCarry={(right, away) => onCarry({ lamp, x_m: tenth(right), y_m: tenth(away), z_m })}
        >
          <circle r={17} className={classes.held} />
        </Knob>
      </g>
    )
  })
}
