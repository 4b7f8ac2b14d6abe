import { useElementSize } from '@mantine/hooks'
import { scaleLog } from 'd3-scale'
import { line } from 'd3-shape'
import { memo, useMemo, type KeyboardEvent, type PointerEvent } from 'react'
import type { FlashUnit, Guide, Sheet } from '../api/client'
import { axisTime } from '../bench/words'
import { LaneMark } from './LaneMark'
import classes from './DurationCurves.module.css'

/** A unit in the comparison; the first is the one in hand. */
export type Lane = { unit: FlashUnit; sheet: Sheet }

type Props = {
  lanes: Lane[]
  guides: Guide[]
  /** Power of the cursor. */
  power: number
  onPower: (power: number) => void
}

const HEIGHT = 318
const LEFT = 64
const TOP = 14
const BOTTOM = HEIGHT - 30
const LABELS = 150
/** Two names closer than this would lie on each other. */
const APART = 15

/** t0.1 against power on log axes, with t0.5 under it for the unit in hand, and what the shot asks for. */
export const DurationCurves = memo(function DurationCurves({ lanes, guides, power, onPower }: Props) {
  const { ref, width } = useElementSize()
  const WIDTH = Math.max(420, width)
  const RIGHT = WIDTH - LABELS
  const first = lanes[0]

  const scales = useMemo(() => {
    const pieces = lanes.flatMap(({ sheet }) => [...sheet.curve, ...(sheet.entered_curve ?? [])])
    const times = [
      ...pieces.flatMap((piece) => piece.t01_s),
      ...(first?.sheet.curve.flatMap((piece) => piece.t05_s) ?? []),
      ...guides.map((guide) => guide.time_s),
    ]
    const powers = pieces.flatMap((piece) => piece.power)
    const low = Math.max(Math.min(...times), 2e-6)
    const high = Math.min(Math.max(...times), 1)
    return {
      x: scaleLog([Math.min(...powers, 0.5) * 0.95, 1.06], [LEFT, RIGHT]).clamp(true),
      y: scaleLog([low / 1.25, high * 1.25], [BOTTOM, TOP]).clamp(true),
    }
  }, [lanes, first, guides, RIGHT])
  if (!first) return <div className={classes.box} />
  const { x, y } = scales

  const path = (powers: number[], times: number[]) =>
    line<number>()
      .x((k) => x(powers[k]!))
      .y((k) => y(times[k]!))(powers.map((_, k) => k)) ?? undefined
  const band = (piece: Sheet['curve'][number]) => {
    const there = piece.power.map((at, k) => `${x(at)},${y(piece.t01_s[k]!)}`)
    const back = piece.power.map((at, k) => `${x(at)},${y(piece.t05_s[k]!)}`).reverse()
    return [...there, ...back].join(' ')
  }
  const dial = first.sheet.powers
  const at = nearest(dial, power)
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

  const moved = (event: PointerEvent<SVGSVGElement>) => {
    if (!(event.buttons & 1)) return
    const box = event.currentTarget.getBoundingClientRect()
    onPower(nearest(dial, x.invert(((event.clientX - box.left) / box.width) * WIDTH)).power)
  }
  const keyed = (event: KeyboardEvent) => {
    const index = dial.indexOf(at)
    const to = {
      ArrowLeft: index + 1,
      ArrowDown: index + 1,
      ArrowRight: index - 1,
      ArrowUp: index - 1,
      PageDown: index + 3,
      PageUp: index - 3,
      Home: dial.length - 1,
      End: 0,
    }[event.key]
    if (to === undefined) return
    event.preventDefault()
    onPower(dial[Math.max(0, Math.min(dial.length - 1, to))]!.power)
  }
  const stops = Math.ceil(-Math.log2(x.domain()[0]!))
  const halves = Array.from({ length: stops }, (_, k) => 2 ** -k).filter((at) => at >= x.domain()[0]!)

  return (
    <div ref={ref} className={classes.box}>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        className={classes.figure}
        role="slider"
        tabIndex={0}
        aria-label="Power on the duration curves"
        aria-valuemin={0}
        aria-valuemax={dial.length - 1}
        aria-valuenow={dial.length - 1 - dial.indexOf(at)}
        aria-valuetext={`${at.power_label}, t0.1 ${at.t01_label}`}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId)
          moved(event)
        }}
        onPointerMove={moved}
        onKeyDown={keyed}
      >
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
        <g className={classes.cursor} transform={`translate(${x(at.power)} 0)`}>
          <line y1={TOP} y2={BOTTOM} />
          <circle cy={y(at.t01_s)} r="5" />
          <rect x="-26" y={BOTTOM + 4} width="52" height="20" rx="10" />
          <text y={BOTTOM + 18} textAnchor="middle">
            {at.power_label}
          </text>
        </g>
      </svg>
    </div>
  )
})

/** The step of a dial nearest to a power, in stops. */
export function nearest<T extends { power: number }>(dial: T[], power: number): T {
  return dial.reduce((best, step) =>
    Math.abs(Math.log(step.power / power)) < Math.abs(Math.log(best.power / power)) ? step : best,
  )
}

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
