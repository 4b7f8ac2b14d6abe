import { scaleLinear } from 'd3-scale'
import { area, line } from 'd3-shape'
import type { AtPower } from '../api/client'
import { axisTime } from '../words/figures'
import type { Lane } from './lanes'
import { nearest } from './lanes'
import classes from './PulseShapes.module.css'

const WIDTH = 232
const HEIGHT = 170
const RIGHT = WIDTH - 36
const FLOOR = HEIGHT - 20
const TOP = 8

/** The pulses themselves at one power, on one axis of time. */
export function PulseShapes({ lanes, power }: { lanes: Lane[]; power: number }) {
  const seen = lanes.map((lane) => nearest(lane.sheet.powers, power))
  const first = seen[0]
  if (!first) return null
  const x = scaleLinear([0, Math.max(...seen.map((at) => at.pulse_end_s))], [6, RIGHT])
  const y = scaleLinear([0, 1.04], [FLOOR, TOP])
  const time = (at: AtPower, k: number) => (at.pulse_end_s * k) / (at.pulse_level.length - 1)
  const indices = (at: AtPower) => at.pulse_level.map((_, k) => k)
  const filled = area<number>()
    .x((k) => x(time(first, k)))
    .y0(FLOOR)
    .y1((k) => y(first.pulse_level[k]!))
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className={classes.figure}
      role="img"
      aria-label="Shape of the pulse"
    >
      <path d={filled(indices(first)) ?? undefined} className={classes.first} />
      {seen.slice(1).map((at, index) => (
        <path
          key={index}
          className={classes.other}
          data-lane={index + 1}
          d={
            line<number>()
              .x((k) => x(time(at, k)))
              .y((k) => y(at.pulse_level[k]!))(indices(at)) ?? undefined
          }
        />
      ))}
      {[0.5, 0.1].map((level) => (
        <g key={level} className={classes.level}>
          <line x1="6" x2={RIGHT} y1={y(level)} y2={y(level)} />
          <text x={RIGHT + 5} y={y(level)} dy="0.35em">
            {level * 100} %
          </text>
        </g>
      ))}
      {x.ticks(3).map((tick) => (
        <text
          key={tick}
          x={x(tick)}
          y={HEIGHT - 5}
          textAnchor={tick === 0 ? 'start' : 'middle'}
          className={classes.tick}
        >
          {tick === 0 ? '0' : axisTime(tick)}
        </text>
      ))}
      <line x1="6" x2={RIGHT} y1={FLOOR} y2={FLOOR} className={classes.floor} />
    </svg>
  )
}
