import { memo } from 'react'
import type { FloorAnswer } from '../api/client'
import type { Layer } from './layers'
import classes from './Floor.module.css'

type Scale = (metres: number) => number
type Props = { seen: FloorAnswer; x: Scale; y: Scale; on: Layer[] }

/** What stands around: walls, the way somebody comes, flags, the sun and where it goes. */
export function Surroundings({ seen, x, y, on }: Props) {
  const { room } = seen.shot
  return (
    <>
      {room && on.includes('room') && (
        <rect
          x={x(room.left_m)}
          y={y(room.far_m)}
          width={x(room.right_m) - x(room.left_m)}
          height={y(room.near_m) - y(room.far_m)}
          className={classes.room}
          data-testid="room"
        />
      )}
      {on.includes('room') &&
        seen.lights.map((light, index) => <FlagOnFloor key={index} {...{ seen, light, x, y }} />)}
      {seen.along && on.includes('way') && <Along along={seen.along} x={x} y={y} />}
      {seen.sun && on.includes('sun') && <SunOnFloor sun={seen.sun} x={x} y={y} />}
    </>
  )
}

function FlagOnFloor({
  seen,
  light,
  x,
  y,
}: Pick<Props, 'seen' | 'x' | 'y'> & { light: FloorAnswer['lights'][number] }) {
  if (!light.flag) return null
  const { x_m, y_m, width_m } = light.flag
  // It hangs square to the line from its light to the lens.
  const [dx, dy] = [seen.camera.x_m - light.at.x_m, seen.camera.y_m - light.at.y_m]
  const long = Math.hypot(dx, dy) || 1
  const [sx, sy] = [(-dy / long) * (width_m / 2), (dx / long) * (width_m / 2)]
  return (
    <line
      x1={x(x_m - sx)}
      y1={y(y_m - sy)}
      x2={x(x_m + sx)}
      y2={y(y_m + sy)}
      className={classes.flag}
      data-flag={light.label}
    />
  )
}

const Along = memo(function Along({
  along,
  x,
  y,
}: {
  along: NonNullable<FloorAnswer['along']>
  x: Scale
  y: Scale
}) {
  const at = (metres: number) => {
    const share = metres / along.length_m
    const between = (from: number, to: number) => from + (to - from) * share
    return [
      x(between(along.from_m[0]!, along.to_m[0]!)),
      y(between(along.from_m[1]!, along.to_m[1]!)),
    ] as const
  }
  const [from, to] = [at(0), at(along.length_m)]
  const press = along.press_m?.map((metres) => at(metres))
  const turn = (Math.atan2(to[1] - from[1], to[0] - from[0]) * 180) / Math.PI
  return (
    <g data-testid="way">
      <line x1={from[0]} y1={from[1]} x2={to[0]} y2={to[1]} className={classes.along} />
      <path
        d="M-9 -5L0 0L-9 5"
        transform={`translate(${to[0]} ${to[1]}) rotate(${turn})`}
        className={classes.along}
      />
      {press && (
        <line
          x1={press[0]![0]}
          y1={press[0]![1]}
          x2={press[1]![0]}
          y2={press[1]![1]}
          className={classes.press}
        />
      )}
    </g>
  )
})

type OnSheet = readonly [number, number]

/** Where north is: an arrow beyond the sun's ring, and its letter. */
function North({ at, tip }: { at: OnSheet; tip: OnSheet }) {
  const turn = (Math.atan2(tip[1] - at[1], tip[0] - at[0]) * 180) / Math.PI
  return (
    <g data-testid="north" className={classes.north}>
      <path d="M-14 -5L0 0L-14 5Z" transform={`translate(${tip[0]} ${tip[1]}) rotate(${turn})`} />
      <text x={at[0]} y={at[1] + 4} className={classes.hour}>
        N
      </text>
    </g>
  )
}

/** The sun's ring, in metres around the mark. */
const RING = 2.6

const SunOnFloor = memo(function SunOnFloor({
  sun,
  x,
  y,
}: {
  sun: NonNullable<FloorAnswer['sun']>
  x: Scale
  y: Scale
}) {
  const at = (bearing: number, away: number) => {
    const turn = (bearing * Math.PI) / 180
    return [x(away * Math.sin(turn)), y(-away * Math.cos(turn))] as const
  }
  const [sx, sy] = at(sun.bearing_deg, RING)
  return (
    <g data-testid="sun">
      {sun.hours.map((hour) => {
        const [hx, hy] = at(hour.bearing_deg, RING)
        const [tx, ty] = at(hour.bearing_deg, RING + 0.25)
        return (
          <g key={hour.time}>
            <circle cx={hx} cy={hy} r={2} className={classes.sunHour} />
            {Number(hour.time.slice(0, 2)) % 3 === 0 && (
              <text x={tx} y={ty + 4} className={classes.hour}>
                {hour.time}
              </text>
            )}
          </g>
        )
      })}
      <North at={at(sun.north_deg, RING + 0.55)} tip={at(sun.north_deg, RING + 0.85)} />
      {sun.height_deg > 0 && (
        <>
          <line x1={sx} y1={sy} x2={x(0)} y2={y(0)} className={classes.ray} />
          <circle cx={sx} cy={sy} r={10} className={classes.sun} />
        </>
      )}
    </g>
  )
})
