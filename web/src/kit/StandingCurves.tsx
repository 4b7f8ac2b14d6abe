import type { ScaleLogarithmic } from 'd3-scale'
import { line } from 'd3-shape'
import { memo } from 'react'
import type { Guide, Sheet } from '../api/client'
import { axisTime } from '../words/figures'
import type { Lane } from './lanes'
import { LaneMark } from './LaneMark'
import classes from './DurationCurves.module.css'

export const HEIGHT = 318
export const LEFT = 64
export const TOP = 14
export const BOTTOM = HEIGHT - 30
/** Two names closer than this would lie on each other. */
const APART = 15

type Props = {
  lanes: Lane[]
  guides: Guide[]
  scales: { x: ScaleLogarithmic<number, number>; y: ScaleLogarithmic<number, number> }
  right: number
}

/** t0.1 against power, t0.5 under it for the unit in hand, and what the shot asks for: all that stands while the cursor moves. */
export const StandingCurves = memo(function StandingCurves({ lanes, guides, scales, right: RIGHT }: Props) {
  const { x, y } = scales
  const first = lanes[0]!
  const dial = first.sheet.powers
  const path = (powers: number[], times: number[]) =>
    line<number>()
      .x((k) => x(powers[k]!))
      .y((k) => y(times[k]!))(powers.map((_, k) => k)) ?? undefined
  const band = (piece: Sheet['curve'][number]) => {
    const there = piece.power.map((at, k) => `${x(at)},${y(piece.t01_s[k]!)}`)
    const back = piece.power.map((at, k) => `${x(at)},${y(piece.t05_s[k]!)}`).reverse()
    return [...there, ...back].join(' ')
  }
  const shortest = dial[first.sheet.shortest]!
  const named = spread(
    [
      ...lanes.map((lane, index) => ({
        key: `lane-${lane.unit.id}`,
        y: y(lane.sheet.powers[0]!.t01_s),
        text: lane.unit.name,
        lane: index,
      })),
      ...guides.map((guide) => ({
        key: `guide-${guide.asked_by}-${guide.name}`,
        y: y(guide.time_s),
        text: `${guide.name} ${guide.time_label}`,
        lane: -1,
      })),
    ],
    TOP + 4,
    BOTTOM,
  )

  const stops = Math.ceil(-Math.log2(x.domain()[0]!))
  const halves = Array.from({ length: stops }, (_, k) => 2 ** -k).filter((at) => at >= x.domain()[0]!)

  return (
    <>
      {halves.map((at, k) => (
        <g key={at} className={classes.grid}>
          <line x1={x(at)} x2={x(at)} y1={TOP} y2={BOTTOM} />
          {(halves.length < 9 || k % 2 === 0) && (
            <text x={x(at)} y={BOTTOM + 16} textAnchor="middle">
              {at === 1 ? 'full' : `1/${Math.round(1 / at)}`}
            </text>
          )}
        </g>
      ))}
      {y
        .ticks()
        .filter((tick) => /^[125]e/.test(tick.toExponential()))
        .map((tick) => (
          <g key={tick} className={classes.grid}>
            <line x1={LEFT} x2={RIGHT} y1={y(tick)} y2={y(tick)} />
            <text x={LEFT - 6} y={y(tick)} dy="0.35em" textAnchor="end">
              {axisTime(tick)}
            </text>
          </g>
        ))}
      {guides.map((guide) => (
        <line
          key={`${guide.asked_by}-${guide.name}`}
          className={classes.guide}
          data-asked={guide.asked_by}
          x1={LEFT}
          x2={RIGHT}
          y1={y(guide.time_s)}
          y2={y(guide.time_s)}
        />
      ))}
      {first.sheet.curve.map((piece) => (
        <g key={piece.power[0]}>
          <polygon points={band(piece)} className={classes.band} />
          <path d={path(piece.power, piece.t05_s)} className={classes.half} />
        </g>
      ))}
      {(first.sheet.entered_curve ?? []).map((piece) => (
        <path key={piece.power[0]} d={path(piece.power, piece.t01_s)} className={classes.entered} />
      ))}
      {lanes
        .map((lane, index) => (
          <g key={lane.unit.id} className={classes.lane} data-lane={index} data-curve={lane.unit.id}>
            {lane.sheet.curve.map((piece) => (
              <path key={piece.power[0]} d={path(piece.power, piece.t01_s)} />
            ))}
          </g>
        ))
        .reverse()}
      {(first.unit.recordings ?? []).map((one, k) => (
        <path
          key={k}
          className={classes.recorded}
          data-recording={one.power}
          d={`M${x(one.power) - 5} ${y(one.t01_ms / 1e3)}h10m-5 -5v10`}
        />
      ))}
      <g transform={`translate(${x(shortest.power)} ${y(shortest.t01_s)})`} className={classes.shortest}>
        <path d="M0 5v9" />
        <text
          y="26"
          textAnchor={
            x(shortest.power) > RIGHT - 60 ? 'end' : x(shortest.power) < LEFT + 60 ? 'start' : 'middle'
          }
        >
          shortest {shortest.t01_label}
        </text>
      </g>
      {named.map(({ key, text, lane, y: from, label }) => (
        <g key={key} className={classes.name} data-lane={lane}>
          <path d={`M${RIGHT} ${from} L${RIGHT + 10} ${label}`} />
          {lane >= 0 && <LaneMark lane={lane} x={RIGHT + 18} y={label} />}
          <text x={RIGHT + (lane >= 0 ? 28 : 14)} y={label} dy="0.35em">
            {text.length > 21 ? `${text.slice(0, 20)}…` : text}
          </text>
        </g>
      ))}
    </>
  )
})

/** Moves labels apart that would lie on each other, and keeps them within the figure. */
function spread<T extends { y: number }>(
  things: T[],
  top: number,
  bottom: number,
): (T & { label: number })[] {
  const sorted = [...things].sort((a, b) => a.y - b.y).map((thing) => ({ ...thing, label: thing.y }))
  let floor = top
  for (const thing of sorted) {
    thing.label = Math.max(thing.label, floor)
    floor = thing.label + APART
  }
  let ceiling = bottom
  for (const thing of sorted.toReversed()) {
    thing.label = Math.min(thing.label, ceiling)
    ceiling = thing.label - APART
  }
  return sorted
}
