import { memo, type KeyboardEvent, type PointerEvent } from 'react'
import type { FloorAnswer } from '../api/client'
import { length } from '../words/figures'
import type { Scale } from './Knob'
import classes from './Floor.module.css'

type Props = {
  light: FloorAnswer['lights'][number]
  /** Its place among the shot's lights. */
  index: number
  chosen: boolean
  x: Scale
  y: Scale
  /** Pixels a metre. */
  scale: number
  /** Whether its beam is drawn. */
  beam: boolean
  onPress: (light: number, event: PointerEvent<SVGGElement>) => void
  onMove: (light: number, event: PointerEvent<SVGGElement>) => void
  onLeave: () => void
  onInHand: (light: number) => void
  onStep: (light: number, event: KeyboardEvent<SVGGElement>) => void
}

/** Pixels from a light to its name, and a letter of it. */
const [NAME_AWAY, NAME_WIDE] = [30, 8]

/** A light on the sheet: its face turned to its aim, its beam to where a stop is lost, and a ring when it is in hand. */
export const LightOnFloor = memo(function LightOnFloor({
  light,
  index,
  chosen,
  x,
  y,
  scale,
  beam,
  onPress,
  onMove,
  onLeave,
  onInHand,
  onStep,
}: Props) {
  const pixels = (place: { x_m: number; y_m: number }) => [x(place.x_m), y(place.y_m)] as const
  // Its face, what it is aimed at, and its stand where it hangs on a boom.
  const [[ax, ay], [tx, ty], stand] = [pixels(light.at), pixels(light.aim), pixels(light.stand)]
  const turn = (Math.atan2(ty - ay, tx - ax) * 180) / Math.PI
  const reach = Math.hypot(tx - ax, ty - ay) * 1.25
  const half = Math.min(light.half_deg, 70)
  const spread = Math.tan((half * Math.PI) / 180) * reach
  const face = Math.max(6, light.radius_m * scale)
  // The trouble colour is for what spoils the picture; a light into the lens is said, as it is weighed.
  const wrong = light.on && light.in_picture.length > 0
  const said = [
    ...(wrong ? [`${light.in_picture.join(' and ')} in the picture`] : []),
    ...(light.flares ? ['into the lens'] : []),
  ]
  // Names stand away from the beam, where the sheet has the room for them.
  const left = ax < tx && ax > NAME_AWAY + NAME_WIDE * light.label.length
  const name = left ? ax - NAME_AWAY : ax + NAME_AWAY
  return (
    <g
      tabIndex={0}
      role="button"
      aria-label={`${light.label}, ${length(light.to_mark_m)} from the mark at ${light.clock} o'clock${said.length ? `, ${said.join(', ')}` : ''}`}
      aria-pressed={chosen}
      data-floor-light={light.label}
      data-wrong={wrong || undefined}
      className={classes.light}
      data-off={!light.on || undefined}
      onPointerDown={(event) => onPress(index, event)}
      onPointerMove={(event) => onMove(index, event)}
      onPointerUp={onLeave}
      onFocus={() => onInHand(index)}
      onKeyDown={(event) => onStep(index, event)}
    >
      {Math.hypot(stand[0] - ax, stand[1] - ay) > 1 && (
        <g className={classes.boom} data-boom={light.label}>
          <line x1={ax} y1={ay} x2={stand[0]} y2={stand[1]} />
          <circle cx={stand[0]} cy={stand[1]} r={5} />
        </g>
      )}
      <g transform={`translate(${ax} ${ay}) rotate(${turn})`}>
        {light.on && beam && (
          <path d={`M0 ${-face}L${reach} ${-spread}V${spread}L0 ${face}Z`} className={classes.beam} />
        )}
        <rect x={-4} y={-face} width={8} height={2 * face} rx={4} className={classes.face} />
        <rect x={-19} y={-7} width={13} height={14} rx={4} className={classes.head} />
      </g>
      {chosen && <circle cx={ax} cy={ay} r={Math.max(24, face + 9)} className={classes.ring} />}
      <circle cx={ax} cy={ay} r={Math.max(22, face)} className={classes.hit} />
      <text x={name} y={ay - 20} textAnchor={left ? 'end' : 'start'} className={classes.label}>
        {light.label}
        {said.length > 0 && (
          <tspan x={name} dy={15}>
            {said.join(', ')}
          </tspan>
        )}
      </text>
    </g>
  )
})
