import type { KeyboardEvent, PointerEvent, RefObject } from 'react'
import { useRef } from 'react'
import type { FloorAnswer, Shot } from '../api/client'
import { length } from '../words/figures'
import { STEPS, tenth } from './steps'
import classes from './Floor.module.css'

type Scale = ((metres: number) => number) & { invert: (pixels: number) => number }
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

/** What is taken hold of: what it is called, where it is, and the shot with it somewhere else. */
type Grip = { name: string; says: string; at: [number, number]; to: (x: number, y: number) => Shot }

function gripsOf({ shot, camera, area, behind_m }: FloorAnswer, behind: boolean): Grip[] {
  const { way } = shot
  const beside = (right: number, away: number) => `${length(right)} right, ${length(away)} away`
  return [
    {
      name: 'Camera',
      says: `${length(-camera.y_m)} from the mark`,
      at: [camera.x_m, camera.y_m],
      to: (_, y) => ({ ...shot, subject: { ...shot.subject, distance_m: tenth(-y) } }),
    },
    ...(behind
      ? [
          {
            name: 'Background',
            says: `${length(behind_m)} behind the mark`,
            at: [0, behind_m] as [number, number],
            to: (_: number, y: number) => ({
              ...shot,
              background: { ...shot.background, behind_m: tenth(y) },
            }),
          },
        ]
      : []),
    {
      name: 'Area, near left',
      says: beside(area.left_m, area.near_m),
      at: [area.left_m, area.near_m],
      to: (x, y) => ({ ...shot, area: { ...area, left_m: tenth(x), near_m: tenth(y) } }),
    },
    {
      name: 'Area, far right',
      says: beside(area.right_m, area.far_m),
      at: [area.right_m, area.far_m],
      to: (x, y) => ({ ...shot, area: { ...area, right_m: tenth(x), far_m: tenth(y) } }),
    },
    ...(way
      ? (['from_m', 'to_m'] as const).map((end) => ({
          name: end === 'from_m' ? 'Way, its beginning' : 'Way, its end',
          says: beside(way[end][0]!, way[end][1]!),
          at: [way[end][0]!, way[end][1]!] as [number, number],
          to: (x: number, y: number) => ({ ...shot, way: { ...way, [end]: [tenth(x), tenth(y)] } }),
        }))
      : []),
  ]
}

/** Camera, background, area and way, taken hold of and carried, or stepped by the arrow keys. */
export function Handles({ seen, x, y, svg, behind, onHold, onSketch, onSettle }: Props) {
  const held = useRef<string | undefined>(undefined)
  return gripsOf(seen, behind).map(({ name, says, at, to }) => (
    <g
      key={name}
      tabIndex={0}
      role="button"
      aria-label={`${name}, ${says}`}
      data-grip={name}
      className={classes.grip}
      transform={`translate(${x(at[0])} ${y(at[1])})`}
      onPointerDown={(event: PointerEvent<SVGGElement>) => {
        event.currentTarget.setPointerCapture(event.pointerId)
        held.current = name
        onHold(true)
      }}
      onPointerMove={(event: PointerEvent<SVGGElement>) => {
        if (held.current !== name) return
        const box = svg.current!.getBoundingClientRect()
        onSketch(to(x.invert(event.clientX - box.left), y.invert(event.clientY - box.top)))
      }}
      onPointerUp={() => {
        held.current = undefined
        onHold(false)
        onSettle()
      }}
      onKeyDown={(event: KeyboardEvent<SVGGElement>) => {
        const by = STEPS[event.key]
        if (!by) return
        event.preventDefault()
        event.stopPropagation()
        onSketch(to(at[0] + by[0], at[1] + by[1]))
        onSettle()
      }}
    >
      <circle r={15} className={classes.hit} />
      <circle r={4.5} className={classes.knob} />
    </g>
  ))
}
