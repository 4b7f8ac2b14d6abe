import { scaleLinear } from 'd3-scale'
import { area, line } from 'd3-shape'
import type { AtPower, TraceAnswer } from '../api/client'
import { axisTime } from '../words/figures'
import classes from './TraceFigure.module.css'

const WIDTH = 720
const HEIGHT = 290
const LEFT = 12
const RIGHT = WIDTH - 12
const TOP = 12
const FLOOR = HEIGHT - 72

type Props = {
  reading: TraceAnswer['reading']
  /** What the unit was thought to do at that power. */
  expected: AtPower | undefined
}

/** A recording, noise and all, with its durations marked where they were found. */
export function TraceFigure({ reading, expected }: Props) {
  const { curve_s: times, curve_low: low, curve_high: high } = reading
  const x = scaleLinear([times[0] ?? 0, times[times.length - 1] ?? 1], [LEFT, RIGHT])
  const y = scaleLinear([-0.06, 1.12], [FLOOR, TOP])
  const noise = area<number>()
    .x((k) => x(times[k]!))
    .y0((k) => y(low[k]!) + 0.5)
    .y1((k) => y(high[k]!) - 0.5)
  const spans = [
    { name: 't0.5', at: 0.5, span: reading.t05_span_s },
    { name: 't0.1', at: 0.1, span: reading.t01_span_s },
    { name: 't90', at: undefined, span: reading.t90_span_s },
  ]
  const [from, to] = reading.t90_span_s ?? [0, 0]
  const lit = times.map((_, k) => k).filter((k) => times[k]! >= from! && times[k]! <= to!)
  const light = area<number>()
    .x((k) => x(times[k]!))
    .y0(y(0))
    .y1((k) => y((low[k]! + high[k]!) / 2))
  const start = reading.t01_span_s?.[0]
  const thought =
    expected && start !== undefined && start !== null
      ? line<number>()
          .x((k) => x(start + (expected.pulse_end_s * k) / (expected.pulse_level.length - 1)))
          .y((k) => y(expected.pulse_level[k]!))(
          expected.pulse_level
            .map((_, k) => k)
            .filter(
              (k) => start + (expected.pulse_end_s * k) / (expected.pulse_level.length - 1) <= x.domain()[1]!,
            ),
        )
      : undefined
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className={classes.figure} role="img" aria-label="The recording">
      {lit.length > 1 && <path d={light(lit) ?? undefined} className={classes.light} />}
      <line x1={LEFT} x2={RIGHT} y1={y(0)} y2={y(0)} className={classes.floor} />
      <path d={noise(times.map((_, k) => k)) ?? undefined} className={classes.noise} />
      {thought && <path d={thought} className={classes.thought} />}
      {spans.map(({ name, at, span }, row) =>
        span ? (
          <g key={name} className={classes.span} data-span={name}>
            {at !== undefined && <line x1={x(span[0]!)} x2={x(span[1]!)} y1={y(at)} y2={y(at)} />}
            <rect
              x={x(span[0]!)}
              width={x(span[1]!) - x(span[0]!)}
              y={FLOOR + 6 + row * 15}
              height="7"
              rx="3.5"
            />
            <text x={Math.min(x(span[1]!) + 6, RIGHT - 90)} y={FLOOR + 13 + row * 15}>
              {name} {axisTime(span[1]! - span[0]!)}
            </text>
          </g>
        ) : null,
      )}
      {x
        .ticks(6)
        .filter((tick) => x(tick) > LEFT + 26)
        .map((tick) => (
          <text key={tick} x={x(tick)} y={HEIGHT - 6} textAnchor="middle" className={classes.tick}>
            {axisTime(tick)}
          </text>
        ))}
    </svg>
  )
}
