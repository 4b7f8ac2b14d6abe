import type { ScaleLinear } from 'd3-scale'
import type { KeyboardEvent, PointerEvent } from 'react'
import type { Rung } from '../api/client'
import { signedStops } from '../words/figures'
import { AXIS, LABELS, WIDTH } from './labels'
import classes from './Ladder.module.css'

/** A target is set in tenths of a stop, as meters show them. */
const TENTH = 0.1

/** Names that one label has room for, in letters. */
const NAMES = 14

type Placed = { y: ScaleLinear<number, number>; at: number; pill: number }

type RungProps = Placed & {
  rung: Rung
  /** Where a pointer is, in stops. */
  stopsAt: (event: PointerEvent) => number
  onTarget: (pointer: string, stops: number | undefined) => void
}

/** One light or place with its label; one with a target is dragged to set it. */
export function OneRung({ rung, y, at, pill, stopsAt, onTarget }: RungProps) {
  const pointer = rung.target_pointer
  // A ratio is counted from the light that leads, which the rung says.
  const aim = (stops: number) =>
    pointer && onTarget(pointer, Math.round((stops - (rung.target_from_stops ?? 0)) * 10) / 10)
  const keyed = (event: KeyboardEvent) => {
    if (!pointer) return
    if (event.key === 'Delete' && rung.id !== 'subject') onTarget(pointer, undefined)
    const by = { ArrowUp: TENTH, ArrowDown: -TENTH, PageUp: 1, PageDown: -1 }[event.key]
    if (by === undefined) return
    event.preventDefault()
    aim((rung.target_stops ?? rung.stops ?? 0) + by)
  }
  return (
    <g
      className={classes.rung}
      data-kind={rung.kind}
      data-rung={rung.id}
      data-movable={pointer ? true : undefined}
      role={pointer ? 'slider' : 'img'}
      tabIndex={pointer ? 0 : undefined}
      aria-label={`${rung.label} ${signedStops(rung.stops!)} stops`}
      aria-valuenow={pointer ? (rung.target_stops ?? rung.stops!) : undefined}
      aria-valuetext={
        rung.target_stops != null
          ? `target ${signedStops(rung.target_stops)}`
          : pointer
            ? 'no target'
            : undefined
      }
      onPointerDown={(event) => pointer && event.currentTarget.setPointerCapture(event.pointerId)}
      onPointerMove={(event) => event.buttons & 1 && aim(stopsAt(event))}
      onKeyDown={keyed}
    >
      {rung.target_stops != null && (
        <path
          className={classes.target}
          d={`M${AXIS - 9} ${y(rung.target_stops)} h18`}
          aria-label={`target ${rung.target_stops}`}
        />
      )}
      <Arm from={y(rung.stops!)} to={at} />
      <Pill
        at={at}
        height={pill}
        name={rung.note ? `${rung.label}, ${rung.note}` : rung.label}
        value={
          rung.delta_lightness != null
            ? `ΔL* ${Math.abs(rung.delta_lightness).toFixed(1)}`
            : signedStops(rung.stops!)
        }
      />
    </g>
  )
}

type TogetherProps = Placed & { rungs: Rung[]; onUnfold: () => void }

/** Several that stand too close for a label each; pressed, each has its own. */
export function Together({ rungs, y, at, pill, onUnfold }: TogetherProps) {
  const [first, last] = [rungs[0]!.stops!, rungs.at(-1)!.stops!]
  const within = `${rungs.length} within ${Math.max(0.1, first - last).toFixed(1)}`
  const both = rungs.map(({ label }) => label).join(', ')
  const names = rungs.map((rung) => `${rung.label} ${signedStops(rung.stops!)}`).join(', ')
  return (
    <g
      className={classes.rung}
      data-kind={rungs.every((rung) => rung.kind === rungs[0]!.kind) ? rungs[0]!.kind : 'subject'}
      data-together={rungs.length}
      role="button"
      tabIndex={0}
      aria-label={`${within}: ${names}`}
      onClick={onUnfold}
      onKeyDown={(event) => {
        if (event.key !== 'Enter' && event.key !== ' ') return
        event.preventDefault()
        event.stopPropagation()
        onUnfold()
      }}
    >
      <title>{names}</title>
      {rungs.map((rung) => (
        <Arm key={rung.id} from={y(rung.stops!)} to={at} />
      ))}
      <Pill
        at={at}
        height={pill}
        name={both.length <= NAMES ? both : within}
        value={
          signedStops(first) === signedStops(last)
            ? signedStops(first)
            : `${signedStops(first)} … ${signedStops(last)}`
        }
      />
    </g>
  )
}

function Arm({ from, to }: { from: number; to: number }) {
  return <path className={classes.arm} d={`M${AXIS} ${from} H${LABELS - 14} L${LABELS} ${to}`} />
}

function Pill({ at, height, name, value }: { at: number; height: number; name: string; value: string }) {
  return (
    <>
      <rect
        x={LABELS}
        y={at - height / 2}
        width={WIDTH - LABELS - 1}
        height={height}
        rx={height / 2}
        className={classes.pill}
      />
      <text x={LABELS + 10} y={at} dy="0.35em" className={classes.name}>
        {name}
      </text>
      <text x={WIDTH - 10} y={at} dy="0.35em" textAnchor="end" className={classes.value}>
        {value}
      </text>
    </>
  )
}
