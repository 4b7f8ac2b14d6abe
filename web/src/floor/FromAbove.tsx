import { ActionIcon } from '@mantine/core'
import { useElementSize } from '@mantine/hooks'
import { memo, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react'
import type { FloorAnswer, Shot } from '../api/client'
import type { Layer } from './layers'
import { LightOnFloor } from './LightOnFloor'
import { Measuring, type Place } from './Measuring'
import { keptAim } from './aim'
import { AimKnob } from './AimKnob'
import { Squares } from './Squares'
import { Surroundings } from './Surroundings'
import { Handles } from './Handles'
import { LampKnobs } from './LampKnobs'
import { STEPS, tenth } from './steps'
import { useSteady } from '../shell/useSteady'
import { useLook } from './useLook'
import type { Carried, LampTo } from './useFloor'
import classes from './Floor.module.css'

export type ViewProps = {
  seen: FloorAnswer
  inHand: number
  onInHand: (light: number) => void
  onCarry: (to: Carried) => void
  onCarryLamp: (to: LampTo) => void
  onSettle: () => void
}

/** Metres that are kept around everything. */
const ROOM = 0.7
const THIRDS: Record<string, string> = { '0': '0', '33': '⅓', '67': '⅔' }

/** A third of a stop as it is written on a line. */
export function third(stops: number): string {
  const all = Math.round(Math.abs(stops) * 3)
  const [whole, rest] = [Math.floor(all / 3), all % 3]
  if (all === 0) return '0'
  return `${stops < 0 ? '−' : '+'}${whole || ''}${rest ? THIRDS[String(Math.round((rest / 3) * 100))] : ''}`
}

type Props = ViewProps & {
  layers: Layer[]
  /** Places that are measured between, while the tape is out. */
  ends: Place[] | undefined
  onEnds: (ends: Place[]) => void
  /** Something else is carried: the shot with it there. */
  onSketch: (shot: Shot) => void
}

/** The set as it is from above, the camera below. */
export const FromAbove = memo(function FromAbove({
  seen,
  inHand,
  layers,
  ends,
  onEnds,
  onInHand,
  onCarry,
  onCarryLamp,
  onSketch,
  onSettle,
}: Props) {
  const { ref, width, height } = useElementSize()
  const svg = useRef<SVGSVGElement>(null)
  const held = useRef(false)
  const { camera, area, lights, field } = seen
  const { room, way } = seen.shot
  const stood = seen.lamps.flatMap(({ stands }) => stands ?? [])
  const onWay = way ? [way.from_m, way.to_m] : []
  const xs = [
    camera.x_m,
    area.left_m,
    area.right_m,
    ...lights.map(({ at }) => at.x_m),
    ...stood.map(({ at }) => at.x_m),
    ...onWay.map(([right]) => right!),
    ...(room ? [room.left_m, room.right_m] : []),
    ...(seen.sun ? [3] : []),
  ]
  const ys = [
    camera.y_m,
    area.near_m,
    area.far_m,
    ...lights.map(({ at }) => at.y_m),
    ...stood.map(({ at }) => at.y_m),
    ...onWay.map(([, away]) => away!),
    ...(room ? [room.near_m, room.far_m] : []),
    ...(seen.sun ? [3] : []),
  ]
  const back = Math.min(seen.behind_m, Math.max(...ys, 1) + 1.5)
  const wide = 2 * (Math.max(...xs.map(Math.abs)) + ROOM)
  const [near, far] = [Math.min(...ys) - ROOM, Math.max(back, ...ys) + ROOM / 2]
  // While something is held the sheet stays as it is: it would run away from under the pointer.
  const [still, setStill] = useState<{ wide: number; near: number; far: number }>()
  const hold = (held: boolean) => setStill(held ? { wide, near, far } : undefined)
  const { x, y, scale, zoom, ground } = useLook(still ?? { wide, near, far }, width, height)
  const share = (back - camera.y_m) / Math.max(0.1, field[0]![1]! - camera.y_m)
  const edge = (side: 0 | 1) => ({
    x: camera.x_m + (field[side]![0]! - camera.x_m) * share,
    y: camera.y_m + (field[side]![1]! - camera.y_m) * share,
  })
  const put = (light: number, x_m: number, y_m: number) => {
    // What sits on the camera is carried with it.
    if (lights[light]!.on_camera) return
    onCarry({
      light,
      x_m: tenth(x_m),
      y_m: tenth(y_m),
      z_m: lights[light]!.at.z_m,
      ...keptAim(lights[light]!),
    })
  }
  // A light that is pressed while the tape is out is one of its ends, and so is any other place.
  const measure = (to: Place) => onEnds(ends!.length === 1 ? [ends![0]!, to] : [to])
  const onPress = useSteady((light: number, event: PointerEvent<SVGGElement>) => {
    if (ends) {
      const { at } = lights[light]!
      return measure([at.x_m, at.y_m, at.z_m])
    }
    event.currentTarget.setPointerCapture(event.pointerId)
    held.current = true
    hold(true)
    onInHand(light)
  })
  const onMove = useSteady((light: number, event: PointerEvent<SVGGElement>) => {
    if (!held.current) return
    const box = svg.current!.getBoundingClientRect()
    put(light, x.invert(event.clientX - box.left), y.invert(event.clientY - box.top))
  })
  const onLeave = useSteady(() => {
    held.current = false
    hold(false)
    onSettle()
  })
  const onStep = useSteady((light: number, event: KeyboardEvent<SVGGElement>) => {
    const by = STEPS[event.key]
    if (!by) return
    event.preventDefault()
    event.stopPropagation()
    const { at } = lights[light]!
    put(light, at.x_m + by[0], at.y_m + by[1])
    onSettle()
  })
  // Each line is named where it is nearest to the camera; names that would run into each other are left out.
  const nearest = (stretches: number[][]) =>
    stretches
      .flatMap(([a, b, c, d]) => [
        { at: a!, from: b! },
        { at: c!, from: d! },
      ])
      .reduce((least, end) => (end.from < least.from ? end : least))
  const named = seen.contours
    .filter(({ stretches }) => stretches.length > 0)
    .map(({ stops, stretches }) => ({ stops, ...nearest(stretches) }))
    .toSorted((a, b) => a.at - b.at)
  const levels = named.filter(({ at }, index) => index === 0 || x(at) - x(named[index - 1]!.at) > 26)
  const hours = [12, 3, 9]
  const sheet = { x, y, svg, onHold: hold, onSettle }
  const reach = Math.min(wide / 2, 3) * 0.92
  return (
    <div ref={ref} className={classes.sheet}>
      <svg
        ref={svg}
        width={width}
        height={height}
        viewBox={`0 0 ${width} ${height}`}
        data-testid="from-above"
      >
        <rect
          width={width}
          height={height}
          className={classes.under}
          data-measuring={!!ends || undefined}
          data-testid="ground"
          {...ground}
          onPointerDown={(event) => {
            if (!ends) return ground.onPointerDown(event)
            const box = svg.current!.getBoundingClientRect()
            measure([tenth(x.invert(event.clientX - box.left)), tenth(y.invert(event.clientY - box.top)), 0])
          }}
        />
        <Squares x={x} y={y} width={width} height={height} />
        <Surroundings seen={seen} x={x} y={y} on={layers} />
        {(layers.includes('sun') ? hours : []).map((hour) => {
          const angle = ((6 - hour) / 6) * Math.PI
          return (
            <text
              key={hour}
              x={x(reach * Math.sin(angle))}
              y={y(-reach * Math.cos(angle)) + 4}
              className={classes.hour}
            >
              {hour}
            </text>
          )
        })}
        {seen.behind_m <= back + 1e-6 && (
          <line
            x1={x(-(seen.shot.sheet?.width_m ?? wide) / 2)}
            x2={x((seen.shot.sheet?.width_m ?? wide) / 2)}
            y1={y(seen.behind_m)}
            y2={y(seen.behind_m)}
            className={classes.wall}
            data-sheet={seen.shot.sheet ? true : undefined}
          />
        )}
        {layers.includes('lens') && (
          <path
            d={`M${x(edge(0).x)} ${y(edge(0).y)}L${x(camera.x_m)} ${y(camera.y_m)}L${x(edge(1).x)} ${y(edge(1).y)}`}
            className={classes.field}
          />
        )}
        <polygon
          points={seen.area_corners.map(([right, away]) => `${x(right!)},${y(away!)}`).join(' ')}
          className={classes.area}
          data-own={seen.area_own || undefined}
        />
        {(layers.includes('contours') ? seen.contours : []).map(({ stops, stretches }) => (
          <g key={stops}>
            <path
              d={stretches.map(([a, b, c, d]) => `M${x(a!)} ${y(b!)}L${x(c!)} ${y(d!)}`).join('')}
              className={classes.contour}
              data-zero={Math.abs(stops) < 1e-6 || undefined}
            />
          </g>
        ))}
        {(layers.includes('contours') ? levels : []).map(({ stops, at, from }) => (
          <text key={stops} x={x(at)} y={y(from) + 13} className={classes.level}>
            {third(stops)}
          </text>
        ))}
        <circle cx={x(0)} cy={y(0)} r={5} className={classes.mark} />
        {seen.people.slice(1).map(({ name, chest_m: [right, away] }, index) => (
          <g key={name} transform={`translate(${x(right!)} ${y(away!)})`} className={classes.other}>
            <title>{name}</title>
            <circle r={8} />
            <text y={4}>{index + 2}</text>
          </g>
        ))}
        {lights.map((light, index) => (
          <LightOnFloor
            key={index}
            index={index}
            chosen={index === inHand}
            beam={layers.includes('beams')}
            {...{ light, x, y, scale, onPress, onMove, onLeave, onInHand, onStep }}
          />
        ))}
        <g transform={`translate(${x(camera.x_m)} ${y(camera.y_m)})`} className={classes.camera}>
          <rect x={-15} y={-2} width={30} height={18} rx={6} />
          <circle r={5} />
          <text x={24} y={12}>
            {seen.camera_says}
          </text>
        </g>
        <LampKnobs sheet={sheet} seen={seen} onCarry={onCarryLamp} />
        {!ends && lights[inHand]?.can_be_aimed && (
          <AimKnob
            sheet={sheet}
            of={lights[inHand]}
            onAim={(right, away) => {
              const { at, aim } = lights[inHand]!
              onCarry({ light: inHand, ...at, aim_m: [right, away, aim.z_m] })
            }}
          />
        )}
        {!ends && (
          <Handles sheet={sheet} seen={seen} behind={seen.behind_m <= back + 1e-6} onSketch={onSketch} />
        )}
        {ends && <Measuring ends={ends} says={seen.measured} x={x} y={y} />}
      </svg>
      <div className={classes.zoom}>
        <ActionIcon size="sm" radius="xl" variant="default" aria-label="Larger" onClick={() => zoom(1.4)}>
          +
        </ActionIcon>
        <ActionIcon
          size="sm"
          radius="xl"
          variant="default"
          aria-label="Smaller"
          onClick={() => zoom(1 / 1.4)}
        >
          −
        </ActionIcon>
      </div>
    </div>
  )
})
