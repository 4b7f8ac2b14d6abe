import { Button, SegmentedControl } from '@mantine/core'
import { Key } from '../commands/Key'
import { useElementSize } from '@mantine/hooks'
import { scaleLinear, scaleLog } from 'd3-scale'
import { area, curveMonotoneX } from 'd3-shape'
import { memo, useEffect, useMemo, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react'
import type { Forecast, LightForecast } from '../api/client'
import { axisTime, length, signedStops } from '../words/figures'
import classes from './Moment.module.css'

const HEIGHT = 112
const LEFT = 12
const TOP = 16
const FLOOR = 62
const BARS = 67
const AXIS = 82
const TRAVEL = HEIGHT - 2
/** The axis reaches from a long exposure down to a part of a pulse. */
const LONGEST_S = 4
const SHORTEST_S = 50e-6
/** On a log axis, time starts here instead of at zero. */
const LOG_START_S = 20e-6

type Span = [number, number]
/** `chosen` is the light in hand: its figures are written out, the others are drawn. */
type Props = { forecast: Forecast | undefined; chosen: number; onInTime: () => void }

const within = ([from, to]: Span): Span => {
  const size = Math.max(SHORTEST_S, Math.min(LONGEST_S * 16, to - from))
  const middle = (from + to) / 2
  return [middle - size / 2, middle + size / 2]
}

/** What happens in those milliseconds: time across, rows of the frame upwards. */
export const Moment = memo(function Moment({ forecast, chosen, onInTime }: Props) {
  const svg = useRef<SVGSVGElement>(null)
  const { ref: box, width } = useElementSize()
  const WIDTH = Math.max(400, width)
  const RIGHT = WIDTH - 12
  const drag = useRef<{ x: number; span: Span } | undefined>(undefined)
  const [axis, setAxis] = useState<'linear' | 'log'>('linear')
  const [zoomed, setZoomed] = useState<Span>()

  const moment = forecast?.moment
  const whole = useMemo<Span>(() => {
    if (!moment || !forecast) return [0, 0.02]
    const ends = forecast.lights.map((light) => light.firing.ignition_s + light.pulse.length_s)
    const end = Math.max(moment.end_s, ...ends)
    return [-end * 0.02, end * 1.04]
  }, [moment, forecast])
  const span = zoomed ?? whole

  const zoom = (factor: number, at = (span[0] + span[1]) / 2) =>
    setZoomed(within([at - (at - span[0]) * factor, at + (span[1] - at) * factor]))
  const atPointer = (clientX: number) => {
    const box = svg.current!.getBoundingClientRect()
    return scaleLinear([box.left, box.right], span)(clientX)
  }

  useEffect(() => {
    const element = svg.current
    if (!element || axis === 'log') return
    const turn = (event: WheelEvent) => {
      event.preventDefault()
      zoom(Math.exp(event.deltaY * 0.0018), atPointer(event.clientX))
    }
    element.addEventListener('wheel', turn, { passive: false })
    return () => element.removeEventListener('wheel', turn)
  })

  if (!forecast || !moment) return <section className={classes.moment} aria-label="Moment" aria-busy="true" />

  const inHand = forecast.lights[chosen] ?? forecast.lights[forecast.key]!
  const { pulse, rows, firing } = inHand
  const fired = inHand.fires
  const glow = firing.sync === 'high_speed'
  const ignition = firing.ignition_s
  const others = forecast.lights.filter((light) => light !== inHand && light.fires)
  const glows = forecast.lights.some((light) => light.fires && light.firing.sync === 'high_speed')
  const x =
    axis === 'log'
      ? scaleLog([LOG_START_S, Math.max(whole[1], LOG_START_S * 10)], [LEFT, RIGHT]).clamp(true)
      : scaleLinear(span, [LEFT, RIGHT])
  // Lights that fire at once, or too close to be written apart, are named together.
  const flags: { at: number; names: string[] }[] = []
  for (const light of others.toSorted((a, b) => a.firing.ignition_s - b.firing.ignition_s)) {
    const letter = light.label.split(' ')[0]!
    const last = flags.at(-1)
    if (last && x(light.firing.ignition_s) - x(last.at) < 14 * (last.names.length + 1))
      last.names.push(letter)
    else flags.push({ at: light.firing.ignition_s, names: [letter] })
  }
  const y = scaleLinear([0, 1], [FLOOR, TOP])
  // On a log axis straight edges bend: enough points along the rows keep them true.
  const edge = (at: number) =>
    Array.from({ length: 25 }, (_, k) => [x(at + (moment.travel_s * k) / 24), y(k / 24)] as const)
  const first = edge(0)
  const second = edge(moment.shutter_s)
  const outline = (points: (readonly [number, number])[]) =>
    points.map(([px, py]) => `${px.toFixed(2)},${py.toFixed(2)}`).join(' ')
  const drawn = ({ pulse: { curve_level: levels, curve_end_s: end }, firing }: LightForecast) =>
    area<number>()
      .x((_, k) => x(firing.ignition_s + (end * k) / (levels.length - 1)))
      .y0(FLOOR)
      .y1((level) => y(level * 0.92))
      .curve(curveMonotoneX)(levels) ?? ''
  const t05: Span = [ignition + pulse.t05_span_s[0]!, ignition + pulse.t05_span_s[1]!]
  const t01: Span = [ignition + pulse.t01_span_s[0]!, ignition + pulse.t01_span_s[1]!]

  const fit = (to: 'whole' | 'pulse') =>
    setZoomed(
      to === 'whole'
        ? undefined
        : within([ignition - pulse.length_s * 0.25, ignition + pulse.length_s * 1.35]),
    )
  const keys: Record<string, () => void> = {
    '+': () => zoom(0.7),
    '=': () => zoom(0.7),
    '-': () => zoom(1 / 0.7),
    ArrowLeft: () => setZoomed([span[0] - (span[1] - span[0]) * 0.1, span[1] - (span[1] - span[0]) * 0.1]),
    ArrowRight: () => setZoomed([span[0] + (span[1] - span[0]) * 0.1, span[1] + (span[1] - span[0]) * 0.1]),
    '0': () => fit('whole'),
    Enter: () => fit('pulse'),
  }
  const keyed = (event: KeyboardEvent) => {
    const action = event.ctrlKey || event.metaKey ? undefined : keys[event.key]
    if (!action) return
    event.preventDefault()
    event.stopPropagation()
    setAxis('linear')
    action()
  }
  const panned = (event: PointerEvent<SVGSVGElement>) => {
    const start = drag.current
    if (!start || axis === 'log') return
    const box = event.currentTarget.getBoundingClientRect()
    const by = ((start.x - event.clientX) / box.width) * (start.span[1] - start.span[0])
    setZoomed([start.span[0] + by, start.span[1] + by])
  }
  const shown = zoomed ? (span[1] - span[0] < pulse.length_s * 4 ? 'pulse' : '') : 'whole'
  const ticks =
    axis === 'log'
      ? (x as ReturnType<typeof scaleLog<number, number>>)
          .ticks()
          .filter((tick) => /^1e|^1$/.test(tick.toExponential().replace(/e.*/, '')))
      : x.ticks(10)
  const step = ticks.length > 1 ? ticks[1]! - ticks[0]! : 1

  return (
    <section className={classes.moment} aria-label="Moment">
      <header className={classes.head}>
        <h2 className={classes.title}>Moment</h2>
        <span className={classes.line} data-testid="moment-line">
          {forecast.lights.length > 1 && <b>{inHand.label} </b>}
          {fired ? (
            glow ? (
              <>high-speed sync, each row lit for {forecast.exposure.shutter_label}</>
            ) : (
              <>
                t0.1 <b className="mono">{pulse.t01_label}</b> ({axisTime(+pulse.t01_s.toPrecision(3))}) ·
                t0.5 <b className="mono">{pulse.t05_label}</b> · fires at {axisTime(+ignition.toPrecision(4))}
                {firing.lag_s > 0 && <> · trigger and unit wait {axisTime(firing.lag_s)}</>}
                {firing.rear_acts_as_front && <> · rear acts as front</>}
                {' · '}
                {rows.worst_stops == null
                  ? 'a row gets no flash'
                  : rows.touched_share > 0
                    ? `rows lose up to ${signedStops(rows.worst_stops)}`
                    : 'all rows get it'}
              </>
            )
          ) : (
            <>{inHand.silent === 'off' ? 'no flash in this picture' : inHand.silent}</>
          )}
        </span>
        <span className={classes.spacer} />
        <Button
          size="compact-xs"
          radius="xl"
          variant="default"
          data-choose="movement-in-time"
          onClick={onInTime}
        >
          In time&nbsp;
          <Key of="in_time" />
        </Button>
        <SegmentedControl
          size="xs"
          radius="xl"
          aria-label="Zoom of the moment"
          value={axis === 'log' ? 'log' : shown}
          onChange={(to) => {
            setAxis(to === 'log' ? 'log' : 'linear')
            if (to !== 'log') fit(to as 'whole' | 'pulse')
          }}
          data={[
            { value: 'whole', label: 'Whole' },
            { value: 'pulse', label: 'Pulse' },
            { value: 'log', label: 'Log' },
          ]}
        />
      </header>
      <div ref={box} className={classes.box}>
        <svg
          ref={svg}
          id="moment"
          className={classes.figure}
          viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
          role="application"
          tabIndex={0}
          aria-label="Time from first row open to last row closed. Plus and minus zoom, arrows move, 0 shows all, Enter shows the pulse."
          onKeyDown={keyed}
          onPointerDown={(event) => {
            event.currentTarget.setPointerCapture(event.pointerId)
            drag.current = { x: event.clientX, span }
          }}
          onPointerMove={panned}
          onPointerUp={() => (drag.current = undefined)}
          onDoubleClick={() => fit('whole')}
        >
          <defs>
            <pattern
              id="hatch"
              width="7"
              height="7"
              patternUnits="userSpaceOnUse"
              patternTransform="rotate(45)"
            >
              <line x1="0" x2="0" y1="0" y2="7" className={classes.hatch} />
            </pattern>
            <clipPath id="moment-clip">
              <rect x="0" y="0" width={WIDTH} height={HEIGHT} />
            </clipPath>
          </defs>
          <g clipPath="url(#moment-clip)">
            <polygon points={outline([...first, ...second.toReversed()])} className={classes.open} />
            <polyline points={outline(first)} className={classes.curtain} />
            <polyline points={outline(second)} className={classes.curtain} />
            {glows && (
              <polygon points={outline([...first, ...second.toReversed()])} className={classes.glow} />
            )}
            {others
              .filter((light) => light.firing.sync !== 'high_speed')
              .map((light) => (
                <path
                  key={light.label}
                  d={drawn(light)}
                  className={classes.other}
                  data-testid="other-pulse"
                />
              ))}
            {flags.map(({ at, names }) => (
              <text key={at} x={x(at) - 3} y={FLOOR - 3} textAnchor="end" className={classes.flag}>
                {names.toSorted().join(' ')}
              </text>
            ))}
            {fired && !glow && (
              <>
                {firing.lag_s > 0 && (
                  <rect
                    x={x(ignition - firing.lag_s)}
                    y={FLOOR - 5}
                    width={Math.max(1, x(ignition) - x(ignition - firing.lag_s))}
                    height="5"
                    className={classes.lag}
                  >
                    <title>Trigger and unit wait {axisTime(firing.lag_s)}</title>
                  </rect>
                )}
                <path d={drawn(inHand)} className={classes.pulse} data-testid="pulse" />
                <rect
                  x={x(t01[0])}
                  y={BARS}
                  width={Math.max(1.5, x(t01[1]) - x(t01[0]))}
                  height="4"
                  className={classes.t01}
                />
                <rect
                  x={x(t05[0])}
                  y={BARS + 5}
                  width={Math.max(1.5, x(t05[1]) - x(t05[0]))}
                  height="4"
                  className={classes.t05}
                />
              </>
            )}
          </g>
          <line x1={LEFT} x2={RIGHT} y1={AXIS - 6} y2={AXIS - 6} className={classes.axis} />
          {ticks.map((tick) => (
            <g key={tick} transform={`translate(${x(tick)} ${AXIS - 6})`}>
              <line y2="4" className={classes.axis} />
              <text y="17" textAnchor="middle" className={classes.tick}>
                {axisTime(Math.abs(tick) < step / 1e6 ? 0 : tick)}
              </text>
            </g>
          ))}
          {forecast.parts.length > 0 && (
            <text x={LEFT} y={TRAVEL} className={classes.travel}>
              Travel in the flash / while open
              {forecast.parts.slice(0, 5).map((part) => (
                <tspan key={part.name} dx="14">
                  {part.name}{' '}
                  <tspan className={classes.number}>
                    {length(part.flash_travel_m)} / {length(part.ambient_travel_m)}
                  </tspan>
                </tspan>
              ))}
            </text>
          )}
          <text x={Math.max(LEFT, Math.min(RIGHT - 90, x(0) + 6))} y={TOP - 5} className={classes.edge}>
            first curtain
          </text>
          <text
            x={Math.max(LEFT + 100, Math.min(RIGHT, x(moment.shutter_s + moment.travel_s) - 4))}
            y={TOP - 5}
            textAnchor="end"
            className={classes.edge}
          >
            second curtain
          </text>
        </svg>
      </div>
    </section>
  )
})
