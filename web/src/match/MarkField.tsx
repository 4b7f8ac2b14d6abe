import { scaleLog } from 'd3-scale'
import { line } from 'd3-shape'
import { useMemo, type KeyboardEvent } from 'react'
import type { MarkMap, UnitMark } from '../api/client'
import { axisTime, pixels } from '../words/figures'
import classes from './MarkField.module.css'

const WIDTH = 560
const HEIGHT = 476
const LEFT = 46
const RIGHT = WIDTH - 14
const TOP = 12
const BOTTOM = HEIGHT - 34
/** f-numbers people know, a stop apart. */
const APERTURES = [0.7, 1, 1.4, 2, 2.8, 4, 5.6, 8, 11, 16, 22, 32, 45, 64, 90, 128, 180]

export type Hand = { unit: number; mark: number }
type Props = { map: MarkMap; hand: Hand; onHand: (hand: Hand) => void }

/** Every unit as a trail of marks: to the left it freezes better, upwards it reaches farther; the region that works is shaded. */
export function MarkField({ map, hand, onHand }: Props) {
  const { x, y } = useMemo(() => scales(map), [map])
  const trail = useMemo(
    () =>
      line<UnitMark>()
        .x((mark) => x(mark.freeze_s))
        .y((mark) => y(mark.reach_f)),
    [x, y],
  )
  const region = map.reach_f && {
    right: map.freeze_limit_s == null ? RIGHT : Math.min(RIGHT, Math.max(LEFT, x(map.freeze_limit_s))),
    top: Math.max(TOP, Math.min(BOTTOM, y(map.reach_f[1]!))),
    bottom: Math.min(BOTTOM, Math.max(TOP, y(map.reach_f[0]!))),
  }
  // At the right edge there is no room for words on that side.
  const beside = map.freeze_limit_s != null && x(map.freeze_limit_s) > RIGHT - 90
  const turn = (event: KeyboardEvent) => {
    const along = { ArrowRight: 1, ArrowLeft: -1 }[event.key]
    const across = { ArrowDown: 1, ArrowUp: -1 }[event.key]
    if (!along && !across) return
    event.preventDefault()
    event.stopPropagation()
    const unit = (hand.unit + (across ?? 0) + map.trails.length) % map.trails.length
    const marks = map.trails[unit]!.marks
    // Another unit: as near to this one's strength as it has.
    const here = map.trails[hand.unit]!.marks[hand.mark]!
    const mark = across
      ? marks.reduce(
          (best, one, at) =>
            Math.abs(Math.log(one.reach_f / here.reach_f)) <
            Math.abs(Math.log(marks[best]!.reach_f / here.reach_f))
              ? at
              : best,
          0,
        )
      : Math.max(0, Math.min(marks.length - 1, hand.mark + (along ?? 0)))
    onHand({ unit, mark })
  }
  const chosen = map.trails[hand.unit]
  const at = chosen?.marks[hand.mark]
  return (
    <figure className={classes.field}>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        role="application"
        tabIndex={0}
        id="marks"
        aria-label={`Units by freeze and reach. ${at ? told(chosen!.name, at) : ''}`}
        onKeyDown={turn}
      >
        {region && region.bottom > region.top && (
          <g className={classes.region} data-testid="region">
            <rect
              x={LEFT}
              y={region.top}
              width={region.right - LEFT}
              height={region.bottom - region.top}
              rx="10"
            />
            <text x={LEFT + 10} y={region.top + 18}>
              {map.trails.some((trail) => trail.marks.some((mark) => mark.works))
                ? 'works here'
                : 'one alone fails'}
            </text>
          </g>
        )}
        {APERTURES.filter((f) => y(f) >= TOP && y(f) <= BOTTOM).map((f) => (
          <g key={f} className={classes.grid}>
            <line x1={LEFT} x2={RIGHT} y1={y(f)} y2={y(f)} />
            <text x={LEFT - 6} y={y(f)} dy="0.35em" textAnchor="end">
              f/{f}
            </text>
          </g>
        ))}
        {x
          .ticks()
          .filter((tick) => /^[125]e/.test(tick.toExponential()))
          .map((tick) => (
            <g key={tick} className={classes.grid}>
              <line x1={x(tick)} x2={x(tick)} y1={TOP} y2={BOTTOM} />
              <text x={x(tick)} y={BOTTOM + 14} textAnchor="middle">
                {axisTime(tick)}
              </text>
            </g>
          ))}
        {map.freeze_limit_s != null && x(map.freeze_limit_s) < RIGHT && (
          <g className={classes.limit}>
            <line x1={x(map.freeze_limit_s)} x2={x(map.freeze_limit_s)} y1={TOP} y2={BOTTOM} />
            <text
              x={x(map.freeze_limit_s) + (beside ? -5 : 5)}
              y={TOP + 11}
              textAnchor={beside ? 'end' : 'start'}
            >
              {map.strictest} still
            </text>
          </g>
        )}
        {map.trails.map((unit, index) => (
          <g
            key={unit.unit}
            className={classes.trail}
            data-unit={unit.unit}
            data-hand={index === hand.unit || undefined}
          >
            <path d={trail(unit.marks) ?? undefined} />
            {index === hand.unit && <Name name={unit.name} at={unit.marks.at(-1)} x={x} y={y} />}
            {unit.marks.map((mark, k) => (
              <Dot
                key={mark.power}
                x={x(mark.freeze_s)}
                y={y(mark.reach_f)}
                works={mark.works}
                hand={index === hand.unit && k === hand.mark}
                onHand={() => onHand({ unit: index, mark: k })}
              />
            ))}
          </g>
        ))}
        <text className={classes.axis} x={RIGHT} y={HEIGHT - 3} textAnchor="end">
          {map.school}, shorter to the left
        </text>
        <text className={classes.axis} x={LEFT} y={HEIGHT - 3}>
          f at ISO 100 of one, {map.at}
        </text>
      </svg>
      <figcaption aria-live="polite" data-works={at?.works}>
        {at && (
          <>
            <b>{chosen!.name}</b> <span className="mono">{at.label}</span> · {map.school} {at.freeze}
            {at.blur_px != null && ` · ${map.strictest} ${pixels(at.blur_px)}`} · f/
            {at.reach_f.toPrecision(2)}
            <span className={classes.verdict}>{at.works ? 'works' : at.fails}</span>
          </>
        )}
      </figcaption>
    </figure>
  )
}

type NameProps = {
  name: string
  at: UnitMark | undefined
  x: (time: number) => number
  y: (f: number) => number
}

/** A unit's name at the bright end of its trail. */
function Name({ name, at, x, y }: NameProps) {
  if (!at) return null
  const left = x(at.freeze_s) > RIGHT - 110
  return (
    <text
      className={classes.name}
      x={x(at.freeze_s) + (left ? -8 : 8)}
      y={y(at.reach_f) - 6}
      textAnchor={left ? 'end' : 'start'}
    >
      {name}
    </text>
  )
}

type DotProps = { x: number; y: number; works: boolean; hand: boolean; onHand: () => void }

/** A full stone where it works, a hollow splinter where something fails. */
function Dot({ x, y, works, hand, onHand }: DotProps) {
  const shape = works ? 'M-4 0a4 4 0 1 0 8 0a4 4 0 1 0 -8 0Z' : 'M-3 0 0 -3 3 0 0 3Z'
  return (
    <g transform={`translate(${x} ${y})`} onPointerEnter={onHand} onClick={onHand}>
      {hand && <circle r="8" className={classes.ring} />}
      <path d={shape} className={classes.mark} data-works={works} />
      <circle r="6" className={classes.touch} />
    </g>
  )
}

const told = (name: string, mark: UnitMark) =>
  `${name} at ${mark.label}, ${mark.freeze}: ${mark.works ? 'works' : mark.fails}`

function scales(map: MarkMap) {
  const marks = map.trails.flatMap((trail) => trail.marks)
  const range = (values: number[]): [number, number] =>
    values.length ? [Math.min(...values) / 1.15, Math.max(...values) * 1.15] : [1e-5, 1e-2]
  const times = [
    ...marks.map((mark) => mark.freeze_s),
    ...(map.freeze_limit_s == null ? [] : [map.freeze_limit_s]),
  ]
  return {
    x: scaleLog().domain(range(times)).range([LEFT, RIGHT]),
    y: scaleLog()
      .domain(range(marks.map((mark) => mark.reach_f)))
      .range([BOTTOM, TOP]),
  }
}
