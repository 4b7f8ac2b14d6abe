import { useElementSize } from '@mantine/hooks'
import { scaleLinear } from 'd3-scale'
import { memo, useRef } from 'react'
import type { FloorAnswer } from '../api/client'
import { paced } from '../words/figures'
import type { ViewProps } from './FromAbove'
import { keptAim } from './aim'
import { Raised } from './Raised'
import classes from './Floor.module.css'

type Scale = (metres: number) => number
type SunProps = { sun: NonNullable<FloorAnswer['sun']>; chest: number; x: Scale; y: Scale }
/** How far off the sun is drawn, in metres. */
const SUN_M = 1.6

/** The sun, as high as it stands, and as far to the front or back as that looks from the side. */
function SunFromTheSide({ sun, chest, x, y }: SunProps) {
  const [turn, up] = [sun.bearing_deg, sun.height_deg].map((degrees) => (degrees * Math.PI) / 180)
  const [away, high] = [-SUN_M * Math.cos(turn!) * Math.cos(up!), chest + SUN_M * Math.sin(up!)]
  return (
    <g data-testid="sun-from-the-side">
      <line x1={x(away)} y1={y(high)} x2={x(0)} y2={y(chest)} className={classes.ray} />
      <circle cx={x(away)} cy={y(high)} r={7} className={classes.sun} />
    </g>
  )
}

/** The set from the side: the camera at the left, heights upwards; a light is raised and lowered here. */
export const FromTheSide = memo(function FromTheSide({
  seen,
  inHand,
  onInHand,
  onCarry,
  onCarryLamp,
  onSettle,
}: ViewProps) {
  const { ref, width, height } = useElementSize()
  const svg = useRef<SVGSVGElement>(null)
  const { camera, area, lights, field_side } = seen
  const lamps = seen.lamps.flatMap(({ name, on, stands }, lamp) =>
    stands ? [{ lamp, name, on, ...stands }] : [],
  )
  const all = [...lights, ...lamps]
  const ys = [camera.y_m, area.near_m, area.far_m, ...all.map(({ at }) => at.y_m)]
  const back = Math.min(seen.behind_m, Math.max(...ys, 1) + 1.5)
  const [near, far] = [Math.min(...ys) - 0.7, back + 0.5]
  const ceiling = seen.shot.room?.ceiling_m
  const top = Math.max(2.4, camera.z_m, ceiling ?? 0, ...all.map(({ at }) => at.z_m)) + 0.35
  const scale = Math.max(0, Math.min(width / (far - near), (height - 18) / top)) || 1
  const across = (far - near) * scale
  const x = scaleLinear([near, far], [(width - across) / 2, (width + across) / 2])
  const y = scaleLinear([top, 0], [height - 14 - top * scale, height - 14])
  const share = (back - camera.y_m) / Math.max(0.1, field_side[0]![0]! - camera.y_m)
  const edge = (side: 0 | 1) => ({
    x: camera.y_m + (field_side[side]![0]! - camera.y_m) * share,
    y: camera.z_m + (field_side[side]![1]! - camera.z_m) * share,
  })
  const beside = (index: number) =>
    lights.flatMap(({ at }, other) => {
      const here = lights[index]!.at
      // Names need more room to the side than over each other.
      const close = Math.abs(x(at.y_m) - x(here.y_m)) < 64 && Math.abs(y(at.z_m) - y(here.z_m)) < 14
      return close ? [other] : []
    })
  const put = (light: number, z_m: number) => {
    const { at } = lights[light]!
    onCarry({
      light,
      x_m: at.x_m,
      y_m: at.y_m,
      z_m,
      ...keptAim(lights[light]!),
    })
  }
  return (
    <div ref={ref} className={classes.sheet}>
      <svg
        ref={svg}
        width={width}
        height={height}
        viewBox={`0 0 ${width} ${height}`}
        data-testid="from-the-side"
      >
        <line x1={0} x2={width} y1={y(0)} y2={y(0)} className={classes.ground} />
        {ceiling !== undefined && (
          <line
            x1={0}
            x2={width}
            y1={y(ceiling)}
            y2={y(ceiling)}
            className={classes.room}
            data-testid="ceiling"
          />
        )}
        <path
          d={`M${x(edge(0).x)} ${y(edge(0).y)}L${x(camera.y_m)} ${y(camera.z_m)}L${x(edge(1).x)} ${y(edge(1).y)}`}
          className={classes.field}
        />
        <line x1={x(camera.y_m)} x2={x(camera.y_m)} y1={y(camera.z_m)} y2={y(0)} className={classes.leg} />
        <rect
          x={x(area.near_m)}
          y={y(area.high_m)}
          width={x(area.far_m) - x(area.near_m)}
          height={y(area.low_m) - y(area.high_m)}
          className={classes.area}
          data-own={seen.area_own || undefined}
        />
        <rect x={x(0) - 8} y={y(1.75)} width={16} height={y(0) - y(1.75)} rx={8} className={classes.figure} />
        {seen.behind_m <= back + 1e-6 && (
          <line
            x1={x(seen.behind_m)}
            x2={x(seen.behind_m)}
            y1={y(0)}
            y2={y(Math.min(top, seen.shot.sheet?.height_m ?? top))}
            className={classes.wall}
            data-sheet={seen.shot.sheet ? true : undefined}
          />
        )}
        {seen.sun && seen.sun.height_deg > 0 && (
          <SunFromTheSide sun={seen.sun} chest={seen.chest_m[2]!} x={x} y={y} />
        )}
        {lights.map((light, index) => (
          <Raised
            key={index}
            label={light.label}
            z={light.at.z_m}
            off={!light.on}
            svg={svg}
            metres={y.invert}
            onInHand={() => onInHand(index)}
            onRaise={(z) => put(index, z)}
            onSettle={onSettle}
          >
            {/* A boom begins at its stand; without one both are one place. */}
            {!light.on_camera && (
              <path
                d={`M${x(light.at.y_m)} ${y(light.at.z_m)}H${x(light.stand.y_m)}V${y(0)}`}
                className={classes.stand}
              />
            )}
            {light.flag && (
              <line
                x1={x(light.flag.y_m)}
                x2={x(light.flag.y_m)}
                y1={y(light.flag.z_m - light.flag.height_m / 2)}
                y2={y(light.flag.z_m + light.flag.height_m / 2)}
                className={classes.flag}
              />
            )}
            <circle
              cx={x(light.at.y_m)}
              cy={y(light.at.z_m)}
              r={index === inHand ? 9 : 6}
              className={classes.face}
            />
            {/* Lights that hide each other from here are named together, at the first. */}
            {beside(index)[0] === index && (
              <text
                x={Math.max(...beside(index).map((other) => x(lights[other]!.at.y_m))) + 12}
                y={y(light.at.z_m) + 4}
                className={classes.label}
              >
                {beside(index)
                  .map((other) => lights[other]!.label.split(' ')[0])
                  .join(', ')}{' '}
                {paced(light.at.z_m)}
              </text>
            )}
          </Raised>
        ))}
        {lamps.map(({ lamp, name, on, at }) => (
          <Raised
            key={`lamp ${lamp}`}
            label={name}
            z={at.z_m}
            off={!on}
            svg={svg}
            metres={y.invert}
            onRaise={(z_m) => onCarryLamp({ lamp, ...at, z_m })}
            onSettle={onSettle}
          >
            <g
              transform={`translate(${x(at.y_m)} ${y(at.z_m)})`}
              className={classes.lamp}
              data-off={!on || undefined}
            >
              <path d={`M0 0V${y(0) - y(at.z_m)}`} className={classes.stand} />
              <circle r={14} className={classes.hit} />
              <circle r={5} className={classes.bulb} />
              <text x={-10} y={-8} className={classes.label}>
                {name} {paced(at.z_m)}
              </text>
            </g>
          </Raised>
        ))}
        <g transform={`translate(${x(camera.y_m)} ${y(camera.z_m)})`} className={classes.camera}>
          <rect x={-20} y={-8} width={22} height={16} rx={5} />
        </g>
      </svg>
    </div>
  )
})
