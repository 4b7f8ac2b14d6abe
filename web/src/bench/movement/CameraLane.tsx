import { useRef } from 'react'
import type { Shot } from '../../api/client'
import { goesAlong } from './camera'
import classes from './Movement.module.css'

/** Degrees a second for each pixel that the handle is drawn. */
const PER_PIXEL = 2

type Props = {
  shot: Shot
  /** From where to where the shutter is open, and the lane's edges, in pixels. */
  open: readonly [number, number]
  top: number
  height: number
  onChange: (shot: Shot) => void
}

/** The camera's own lane: while the shutter is open it swings as far as its handle is drawn. */
export function CameraLane({ shot, open: [from, to], top, height, onChange }: Props) {
  const held = useRef<{ x: number; swing: number } | undefined>(undefined)
  const swing = shot.camera.movement?.swing_deg_s ?? 0
  const put = (swing_deg_s: number) =>
    onChange(goesAlong(shot, { swing_deg_s: Math.max(0, Math.round(swing_deg_s)) }))
  const end = to + 14 + swing / PER_PIXEL
  const middle = top + height / 2
  return (
    <g>
      <path d={`M${from} ${middle}H${end}`} className={classes.way} />
      <circle
        cx={end}
        cy={middle}
        r={7}
        className={classes.handle}
        tabIndex={0}
        role="slider"
        aria-label="How fast the camera swings"
        aria-valuenow={swing}
        aria-valuetext={`${swing} degrees a second`}
        onPointerDown={(event) => {
          event.stopPropagation()
          event.currentTarget.setPointerCapture(event.pointerId)
          held.current = { x: event.clientX, swing }
        }}
        onPointerMove={(event) => {
          const start = held.current
          if (start) put(start.swing + (event.clientX - start.x) * PER_PIXEL)
        }}
        onPointerUp={() => (held.current = undefined)}
        onKeyDown={(event) => {
          const by = { ArrowLeft: -1, ArrowRight: 1, PageDown: -10, PageUp: 10 }[event.key]
          if (by === undefined) return
          event.preventDefault()
          event.stopPropagation()
          put(swing + by)
        }}
      />
    </g>
  )
}
