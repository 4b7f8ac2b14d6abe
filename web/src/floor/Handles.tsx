import type { KeyboardEvent, PointerEvent, RefObject } from 'react'
import { useRef } from 'react'
import type { FloorAnswer, Shot } from '../api/client'
import { gripsOf, type Grip } from './grips'
import { STEPS } from './steps'
import classes from './Floor.module.css'

export type Scale = ((metres: number) => number) & { invert: (pixels: number) => number }
type Props = {
  seen: FloorAnswer
  x: Scale
  y: Scale
  svg: RefObject<SVGSVGElement | null>
  /** Whether the background is on the sheet. */
  behind: boolean
  onHold: (held: boolean) => void
  onSketch: (shot: Shot) => void
  onSettle: () => void
}

/** Camera, background, area and way, taken hold of and carried, or stepped by the arrow keys. */
export function Handles({ seen, x, y, svg, behind, onHold, onSketch, onSettle }: Props) {
  // As it was taken hold of: where it adds something, that is carried on and not added again.
  const held = useRef<Grip | undefined>(undefined)
  return gripsOf(seen, behind).map((grip) => (
    <g
      key={grip.name}
      tabIndex={0}
      role="button"
      aria-label={`${grip.name}, ${grip.says}`}
      data-grip={grip.name}
      data-adds={grip.adds}
      className={classes.grip}
      transform={`translate(${x(grip.at[0])} ${y(grip.at[1])})`}
      onPointerDown={(event: PointerEvent<SVGGElement>) => {
        event.currentTarget.setPointerCapture(event.pointerId)
        held.current = grip
        onHold(true)
      }}
      onPointerMove={(event: PointerEvent<SVGGElement>) => {
        if (held.current?.name !== grip.name) return
        const box = svg.current!.getBoundingClientRect()
        onSketch(held.current.to(x.invert(event.clientX - box.left), y.invert(event.clientY - box.top)))
      }}
      onPointerUp={() => {
        held.current = undefined
        onHold(false)
        onSettle()
      }}
      onKeyDown={(event: KeyboardEvent<SVGGElement>) => {
        const by = STEPS[event.key]
        const shot = by
          ? grip.to(grip.at[0] + by[0], grip.at[1] + by[1])
          : event.key === 'Delete' || event.key === 'Backspace'
            ? grip.away?.()
            : undefined
        if (!shot) return
        event.preventDefault()
        event.stopPropagation()
        onSketch(shot)
        onSettle()
      }}
    >
      <circle r={grip.adds ? 10 : 15} className={classes.hit} />
      <circle r={grip.adds ? 2.5 : 4.5} className={classes.knob} />
    </g>
  ))
}
