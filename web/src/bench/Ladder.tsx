import { scaleLinear } from 'd3-scale'
import { memo, useRef, type KeyboardEvent, type PointerEvent } from 'react'
import type { Forecast, Rung } from '../api/client'
import { signedStops } from '../words/figures'
import classes from './Ladder.module.css'

const WIDTH = 244
const HEIGHT = 356
const TOP = 14
const BOTTOM = HEIGHT - 10
const AXIS = 52
const LABELS = 76
const ROW = 25
/** A target is set in tenths of a stop, as meters show them. */
const TENTH = 0.1

type Props = {
  ladder: Forecast['ladder'] | undefined
  subject: Forecast['subject'] | undefined
  onTarget: (pointer: string, stops: number | undefined) => void
}

/** Places labels at their rungs, pushed apart so that none covers another, top to bottom and back from the end. */
function spread(wanted: number[], row: number): number[] {
  const placed = [...wanted]
  for (let k = 1; k < placed.length; k++) placed[k] = Math.max(placed[k]!, placed[k - 1]! + row)
  let limit = BOTTOM - row
  for (let k = placed.length - 1; k >= 0; k--) {
    placed[k] = Math.min(placed[k]!, limit)
    limit = placed[k]! - row
  }
  return placed
}

/** Everything in the picture on one scale of stops. A rung with a target is dragged to set it. */
export const Ladder = memo(function Ladder({ ladder, subject, onTarget }: Props) {
  const svg = useRef<SVGSVGElement>(null)
  if (!ladder) return <section className={classes.ladder} aria-label="Ladder" aria-busy="true" />
  const y = scaleLinear([ladder.top_stops, ladder.bottom_stops], [TOP, BOTTOM]).clamp(true)
  const rungs = ladder.rungs.filter((rung) => rung.stops !== null)
  const dark = ladder.rungs.filter((rung) => rung.stops === null)
  // Many rungs stand closer.
  const row = Math.min(ROW, (BOTTOM - TOP) / rungs.length)
  const pill = Math.min(22, row - 1)
  const labels = spread(
    rungs.map((rung) => y(rung.stops!)),
    row,
  )
  const ticks = y.ticks(12)

  // A ratio is counted from the light that leads, which the rung says.
  const aim = (rung: Rung, stops: number) =>
    onTarget(rung.target_pointer!, Math.round((stops - (rung.target_from_stops ?? 0)) * 10) / 10)
  const dragged = (rung: Rung) => (event: PointerEvent<SVGGElement>) => {
    if (!rung.target_pointer || !svg.current || !(event.buttons & 1)) return
    const box = svg.current.getBoundingClientRect()
    const stops = y.invert(((event.clientY - box.top) / box.height) * HEIGHT)
    aim(rung, stops)
  }
  const keyed = (rung: Rung) => (event: KeyboardEvent) => {
    const by = { ArrowUp: TENTH, ArrowDown: -TENTH, PageUp: 1, PageDown: -1 }[event.key]
    if (rung.target_pointer && event.key === 'Delete' && rung.id !== 'subject') {
      onTarget(rung.target_pointer, undefined)
    }
    if (!rung.target_pointer || by === undefined) return
    event.preventDefault()
    aim(rung, (rung.target_stops ?? rung.stops ?? 0) + by)
  }

  return (
    <section className={classes.ladder} aria-label="Ladder">
      <h2 className={classes.title}>
        Ladder{' '}
        <small>
          {subject?.working_aperture ? `reads ${subject.working_aperture}` : 'stops'}
          {subject?.lighting_ratio && ` · ${subject.lighting_ratio}`}
        </small>
      </h2>
      <svg ref={svg} viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className={classes.scale}>
        <rect x={AXIS - 6} y={TOP} width="12" height={BOTTOM - TOP} rx="6" className={classes.rail} />
        <rect
          x={AXIS - 6}
          y={TOP}
          width="12"
          height={y(ladder.clip_stops) - TOP}
          rx="6"
          className={classes.white}
        />
        <rect
          x={AXIS - 6}
          y={y(ladder.black_stops)}
          width="12"
          height={BOTTOM - y(ladder.black_stops)}
          rx="6"
          className={classes.black}
        />
        {ticks.map((tick) => (
          <g
            key={tick}
            transform={`translate(0 ${y(tick)})`}
            className={classes.tick}
            data-zero={tick === 0 || undefined}
          >
            <text x={AXIS - 16} dy="0.35em" textAnchor="end">
              {signedStops(tick, 0)}
            </text>
            <line x1={AXIS - 11} x2={AXIS - 7} />
          </g>
        ))}
        <text x={WIDTH} y={TOP - 3} textAnchor="end" className={classes.note}>
          white clips
        </text>
        <text x={WIDTH} y={BOTTOM + 5} textAnchor="end" className={classes.note}>
          {dark.length > 0 ? `no light: ${dark.map((rung) => rung.label).join(', ')}` : 'reads as black'}
        </text>
        {rungs.map((rung, index) => (
          <g
            key={rung.id}
            className={classes.rung}
            data-kind={rung.kind}
            data-rung={rung.id}
            data-movable={rung.target_pointer ? true : undefined}
            role={rung.target_pointer ? 'slider' : 'img'}
            tabIndex={rung.target_pointer ? 0 : undefined}
            aria-label={`${rung.label} ${signedStops(rung.stops!)} stops`}
            aria-valuenow={rung.target_pointer ? (rung.target_stops ?? rung.stops!) : undefined}
            aria-valuetext={
              rung.target_stops != null
                ? `target ${signedStops(rung.target_stops)}`
                : rung.target_pointer
                  ? 'no target'
                  : undefined
            }
            onPointerDown={(event) =>
              rung.target_pointer && event.currentTarget.setPointerCapture(event.pointerId)
            }
            onPointerMove={dragged(rung)}
            onKeyDown={keyed(rung)}
          >
            {rung.target_stops != null && (
              <path
                className={classes.target}
                d={`M${AXIS - 9} ${y(rung.target_stops)} h18`}
                aria-label={`target ${rung.target_stops}`}
              />
            )}
            <path
              className={classes.arm}
              d={`M${AXIS} ${y(rung.stops!)} H${LABELS - 14} L${LABELS} ${labels[index]}`}
            />
            <rect
              x={LABELS}
              y={labels[index]! - pill / 2}
              width={WIDTH - LABELS - 1}
              height={pill}
              rx={pill / 2}
              className={classes.pill}
            />
            <text x={LABELS + 10} y={labels[index]} dy="0.35em" className={classes.name}>
              {rung.note ? `${rung.label}, ${rung.note}` : rung.label}
            </text>
            <text x={WIDTH - 10} y={labels[index]} dy="0.35em" textAnchor="end" className={classes.value}>
              {rung.delta_lightness != null
                ? `ΔL* ${Math.abs(rung.delta_lightness).toFixed(1)}`
                : signedStops(rung.stops!)}
            </text>
          </g>
        ))}
      </svg>
    </section>
  )
})
