import { useRef, type KeyboardEvent, type PointerEvent, type ReactNode, type RefObject } from 'react'
import type { Place } from './outline'
import { STEPS } from './steps'
import classes from './Floor.module.css'

export type Scale = ((metres: number) => number) & { invert: (pixels: number) => number }
/** The sheet that knobs are on. */
export type Sheet = {
  x: Scale
  y: Scale
  svg: RefObject<SVGSVGElement | null>
  onHold: (held: boolean) => void
  onSettle: () => void
}
type Props = Sheet & {
  /** What it is known by, and what is said of it. */
  grip: string
  label: string
  at: Place
  /** Pixels around it that are taken hold of. */
  reach: number
  onCarry: (x: number, y: number) => void
  /** It can be taken away. */
  onRemove?: () => void
  children: ReactNode
}

/** Something on the sheet that is carried by the pointer, or stepped by the arrow keys. */
export function Knob({
  x,
  y,
  svg,
  onHold,
  onSettle,
  grip,
  label,
  at,
  reach,
  onCarry,
  onRemove,
  children,
}: Props) {
  // As it was taken hold of: where that adds something, it is carried on and not added again.
  const carry = useRef<typeof onCarry | undefined>(undefined)
  return (
    <g
      tabIndex={0}
      role="button"
      aria-label={label}
      data-grip={grip}
      className={classes.grip}
      transform={`translate(${x(at[0])} ${y(at[1])})`}
      onPointerDown={(event: PointerEvent<SVGGElement>) => {
        event.currentTarget.setPointerCapture(event.pointerId)
        carry.current = onCarry
        onHold(true)
      }}
      onPointerMove={(event: PointerEvent<SVGGElement>) => {
        const box = svg.current!.getBoundingClientRect()
        carry.current?.(x.invert(event.clientX - box.left), y.invert(event.clientY - box.top))
      }}
      onPointerUp={() => {
        carry.current = undefined
        onHold(false)
        onSettle()
      }}
      onKeyDown={(event: KeyboardEvent<SVGGElement>) => {
        const by = STEPS[event.key]
        const removes = event.key === 'Delete' || event.key === 'Backspace'
        if (!by && !(removes && onRemove)) return
        event.preventDefault()
        event.stopPropagation()
        if (by) onCarry(at[0] + by[0], at[1] + by[1])
        else onRemove!()
        onSettle()
      }}
    >
      <circle r={reach} className={classes.hit} />
      {children}
    </g>
  )
}
