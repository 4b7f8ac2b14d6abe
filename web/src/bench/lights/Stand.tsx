import { useRef, type KeyboardEvent, type PointerEvent } from 'react'
import classes from './Stand.module.css'

const SIZE = 120
const RING = 46
const STEP = 5

type Props = { bearing: number; onChange: (bearing: number) => void }

/** Where a light stands around the subject, from above, the camera below. */
export function Stand({ bearing, onChange }: Props) {
  const svg = useRef<SVGSVGElement>(null)
  const place = (degrees: number, reach: number) => {
    const angle = (degrees * Math.PI) / 180
    return { x: Math.sin(angle) * reach, y: Math.cos(angle) * reach }
  }
  const at = place(bearing, RING)
  const dragged = (event: PointerEvent) => {
    if (!svg.current || !(event.buttons & 1)) return
    const box = svg.current.getBoundingClientRect()
    const x = event.clientX - box.left - box.width / 2
    const y = event.clientY - box.top - box.height / 2
    onChange(Math.round((Math.atan2(x, y) * 180) / Math.PI / STEP) * STEP)
  }
  const keyed = (event: KeyboardEvent) => {
    const by = { ArrowLeft: -STEP, ArrowRight: STEP }[event.key]
    if (!by) return
    event.preventDefault()
    event.stopPropagation()
    onChange(((bearing + by + 540) % 360) - 180)
  }
  return (
    <svg
      ref={svg}
      viewBox={`${-SIZE / 2} ${-SIZE / 2} ${SIZE} ${SIZE}`}
      className={classes.stand}
      role="slider"
      tabIndex={0}
      aria-label="Bearing around the subject"
      aria-valuemin={-180}
      aria-valuemax={180}
      aria-valuenow={bearing}
      aria-valuetext={`${Math.abs(bearing)}° ${bearing < 0 ? 'left' : 'right'} of the camera`}
      onKeyDown={keyed}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId)
        dragged(event)
      }}
      onPointerMove={dragged}
    >
      <circle r={RING} className={classes.ring} />
      <path d="M-7 54h14l-3-6h-8Z" className={classes.camera} />
      <circle r="6" className={classes.subject} />
      <line x1={at.x * 0.84} y1={at.y * 0.84} x2={at.x * 0.2} y2={at.y * 0.2} className={classes.ray} />
      <circle cx={at.x} cy={at.y} r="7" className={classes.light} />
    </svg>
  )
}
