import { useRef, type KeyboardEvent, type PointerEvent, type ReactNode, type RefObject } from 'react'
import classes from './Floor.module.css'

type Props = {
  label: string
  z: number
  off: boolean
  svg: RefObject<SVGSVGElement | null>
  /** Metres at a place of the sheet. */
  metres: (pixels: number) => number
  onInHand?: () => void
  onRaise: (z: number) => void
  onSettle: () => void
  children: ReactNode
}

/** Something that is raised and lowered from the side, by the pointer or by the arrow keys. */
export function Raised({ label, z, off, svg, metres, onInHand, onRaise, onSettle, children }: Props) {
  const held = useRef(false)
  const raise = (to: number) => onRaise(Math.max(0.1, Math.round(to * 10) / 10))
  return (
    <g
      tabIndex={0}
      role="slider"
      aria-label={`Height of ${label}`}
      aria-orientation="vertical"
      aria-valuenow={z}
      aria-valuetext={`${z.toFixed(1)} m`}
      className={classes.light}
      data-off={off || undefined}
      onFocus={onInHand}
      onPointerDown={(event: PointerEvent<SVGGElement>) => {
        event.currentTarget.setPointerCapture(event.pointerId)
        held.current = true
        onInHand?.()
      }}
      onPointerMove={(event: PointerEvent<SVGGElement>) => {
        if (held.current) raise(metres(event.clientY - svg.current!.getBoundingClientRect().top))
      }}
      onPointerUp={() => {
        held.current = false
        onSettle()
      }}
      onKeyDown={(event: KeyboardEvent<SVGGElement>) => {
        const by = { ArrowUp: 0.1, ArrowDown: -0.1 }[event.key]
        if (by === undefined) return
        event.preventDefault()
        event.stopPropagation()
        raise(z + by)
        onSettle()
      }}
    >
      {children}
    </g>
  )
}
