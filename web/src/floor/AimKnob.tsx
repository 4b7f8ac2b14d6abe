import type { FloorAnswer } from '../api/client'
import { paced } from '../words/figures'
import { Knob, type Sheet } from './Knob'
import { tenth } from './steps'
import classes from './Floor.module.css'

type Props = {
  sheet: Sheet
  of: FloorAnswer['lights'][number]
  onAim: (x: number, y: number) => void
}

/** What the light in hand is aimed at: carried, its head turns after it. */
export function AimKnob({ sheet, of: { label, at, aim }, onAim }: Props) {
  const { x, y } = sheet
  return (
    <>
      <line x1={x(at.x_m)} y1={y(at.y_m)} x2={x(aim.x_m)} y2={y(aim.y_m)} className={classes.axis} />
      <Knob
        {...sheet}
        grip="aim"
        label={`Aim of ${label}, ${paced(aim.x_m)} right, ${paced(aim.y_m)} away`}
        at={[aim.x_m, aim.y_m]}
        reach={12}
        onCarry={(right, away) => onAim(tenth(right), tenth(away))}
      >
        <path d="M-7 0H-2M2 0H7M0 -7V-2M0 2V7" className={classes.cross} />
      </Knob>
    </>
  )
}
