import type { KeyboardEvent, PointerEvent, RefObject } from 'react'
import { useRef } from 'react'
import type { FloorAnswer } from '../api/client'
import { paced } from '../words/figures'
import { STEPS, tenth } from './steps'
import type { Scale } from './Handles'
import classes from './Floor.module.css'

type Props = {
  of: FloorAnswer['lights'][number]
  x: Scale
  y: Scale
  svg: RefObject<SVGSVGElement | null>
  onHold: (held: boolean) => void
  onAim: (x: number, y: number) => void
  onSettle: () => void
}

/** What the light in hand is aimed at: carried, its head turns after it. */
export function AimKnob({ of, x, y, svg, onHold, onAim, onSettle }: Props) {
  const held = useRef(false)
  const { aim, at } = of
  return (
    <g
      tabIndex={0}
      role="button"
      aria-label={`Aim of ${of.label}, ${paced(aim.x_m)} right, ${paced(aim.y_m)} away`}
      data-grip="aim"
      className={classes.grip}
      onPointerDown={(event: PointerEvent<SVGGElement>) => {
        event.currentTarget.setPointerCapture(event.pointerId)
        held.current = true
        onHold(true)
      }}
      onPointerMove={(event: PointerEvent<SVGGElement>) => {
        if (!held.current) return
        const box = svg.current!.getBoundingClientRect()
        onAim(tenth(x.invert(event.clientX - box.left)), tenth(y.invert(event.clientY - box.top)))
      }}
      onPointerUp={() => {
        held.current = false
        onHold(false)
        onSettle()
      }}
      onKeyDown={(event: KeyboardEvent<SVGGElement>) => {
        const by = STEPS[event.key]
        if (!by) return
        event.preventDefault()
        event.stopPropagation()
        onAim(aim.x_m + by[0], aim.y_m + by[1])
        onSettle()
      }}
    >
      <line x1={x(at.x_m)} y1={y(at.y_m)} x2={x(aim.x_m)} y2={y(aim.y_m)} className={classes.axis} />
      <circle cx={x(aim.x_m)} cy={y(aim.y_m)} r={12} className={classes.hit} />
      <path
        d="M-7 0H-2M2 0H7M0 -7V-2M0 2V7"
        transform={`translate(${x(aim.x_m)} ${y(aim.y_m)})`}
        className={classes.cross}
      />
    </g>
  )
}
