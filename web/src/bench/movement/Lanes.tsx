import { useElementSize } from '@mantine/hooks'
import { scaleLinear } from 'd3-scale'
import { line } from 'd3-shape'
import { useRef, type KeyboardEvent, type PointerEvent } from 'react'
import type { LanesAnswer, Shot } from '../../api/client'
import { IntentMark } from '../../marks/IntentMark'
import { axisTime, length } from '../../words/figures'
import { CameraLane } from './CameraLane'
import { lasting } from './phases'
import classes from './Movement.module.css'

/** A lane is as high as the room allows, within these. */
const LANE_LEAST = 40
const LANE_MOST = 66
/** Room for all of them. */
const ROOM = 216
const HEAD = 20
const LEFT = 4
/** What a key moves by, in seconds. */
const STEP = 0.01

type Props = {
  shot: Shot
  lanes: LanesAnswer
  /** The part in hand. */
  part: number
  onPart: (part: number) => void
  /** The moment that is looked at. */
  at: number
  onAt: (at: number) => void
  onChange: (shot: Shot) => void
}

/** A lane for each part against time: its phases, where it is, when the shutter is open, and when each flash fires. */
export function Lanes({ shot, lanes, part, onPart, at, onAt, onChange }: Props) {
  const { ref, width } = useElementSize()
  const LANE = Math.max(LANE_LEAST, Math.min(LANE_MOST, ROOM / (lanes.lanes.length + 1)))
  const right = Math.max(300, width) - 8
  const x = scaleLinear([lanes.from_s, lanes.to_s], [LEFT, right])
  const height = HEAD + LANE * (lanes.lanes.length + 1)
  const svg = useRef<SVGSVGElement>(null)
  const held = useRef<{ from: number; start: number } | undefined>(undefined)
  const time = (clientX: number) => x.invert(clientX - svg.current!.getBoundingClientRect().left)
  const round = (seconds: number) => Math.round(seconds * 1000) / 1000

  const open = (seconds: number) =>
    onChange({ ...shot, moment: { ...shot.moment, opens_at_s: round(seconds) } })
  const last = (index: number, seconds: number) =>
    onChange({
      ...shot,
      parts: shot.parts.map((one, i) =>
        i === part
          ? {
              ...one,
              phases: one.phases?.map((phase, k) => (k === index ? lasting(phase, seconds) : phase)) ?? [],
            }
          : one,
      ),
    })

  /** Something that is dragged along the clock, and stepped by keys. */
  const dragged = (value: number, put: (seconds: number) => void) => ({
    onPointerDown: (event: PointerEvent<SVGElement>) => {
      event.stopPropagation()
      event.currentTarget.setPointerCapture(event.pointerId)
      held.current = { from: time(event.clientX), start: value }
    },
    onPointerMove: (event: PointerEvent<SVGElement>) => {
      if (held.current) put(held.current.start + time(event.clientX) - held.current.from)
    },
    onPointerUp: () => (held.current = undefined),
    onKeyDown: (event: KeyboardEvent<SVGElement>) => {
      const by = { ArrowLeft: -STEP, ArrowRight: STEP, PageDown: -10 * STEP, PageUp: 10 * STEP }[event.key]
      if (by === undefined) return
      event.preventDefault()
      event.stopPropagation()
      put(value + by)
    },
  })

  return (
    <div className={classes.lanes}>
      <div className={classes.names} style={{ paddingTop: HEAD }}>
        {lanes.lanes.map((lane, index) => (
          <button
            key={lane.name}
            type="button"
            className={classes.name}
            style={{ height: LANE }}
            aria-pressed={index === part}
            onClick={() => onPart(index)}
          >
            <span>
              <IntentMark intent={lane.intent} size={13} /> <b>{lane.name}</b>
            </span>
            <span className="mono">
              {length(lane.now.place_m)} · {lane.now.speed_m_s.toFixed(1)} m/s
            </span>
          </button>
        ))}
        <span className={classes.name} style={{ height: LANE }}>
          <b>Camera</b>
          <span className="mono">swings {shot.camera.movement?.swing_deg_s ?? 0} °/s</span>
        </span>
      </div>
      <div ref={ref} className={classes.clock}>
        <svg
          ref={svg}
          width="100%"
          height={height + 18}
          data-testid="lanes"
          onPointerDown={(event) => {
            event.currentTarget.setPointerCapture(event.pointerId)
            held.current = { from: 0, start: 0 }
            onAt(round(time(event.clientX)))
          }}
          onPointerMove={(event) => held.current && onAt(round(time(event.clientX)))}
          onPointerUp={() => (held.current = undefined)}
        >
          {lanes.lanes.map((lane, index) => {
            const top = HEAD + index * LANE
            const low = Math.min(...lane.curve_m)
            const high = Math.max(...lane.curve_m, low + 1e-6)
            const y = scaleLinear([low, high], [top + LANE - 7, top + 7])
            const curve = line<number>(
              (k) => x(lane.curve_s[k]!),
              (k) => y(lane.curve_m[k]!),
            )
            return (
              <g key={lane.name}>
                <rect
                  x={LEFT}
                  y={top + 2}
                  width={right - LEFT}
                  height={LANE - 4}
                  rx={8}
                  className={classes.ground}
                  data-chosen={index === part || undefined}
                />
                {lane.phases.map((phase) => (
                  <line
                    key={phase.begins_s}
                    x1={x(phase.begins_s)}
                    x2={x(phase.begins_s)}
                    y1={top + 3}
                    y2={top + LANE - 3}
                    className={classes.edge}
                  />
                ))}
                <path d={curve(lane.curve_m.map((_, k) => k)) ?? ''} className={classes.way} />
              </g>
            )
          })}
          <rect
            x={x(lanes.opens_s)}
            y={HEAD - 4}
            width={Math.max(3, x(lanes.closes_s) - x(lanes.opens_s))}
            height={height - HEAD + 6}
            className={classes.open}
            tabIndex={0}
            role="slider"
            aria-label="When the shutter opens"
            aria-valuenow={lanes.opens_s}
            aria-valuetext={`${axisTime(lanes.opens_s)}, open until ${axisTime(lanes.closes_s)}`}
            {...dragged(lanes.opens_s, open)}
          />
          <CameraLane
            shot={shot}
            open={[x(lanes.opens_s), x(lanes.closes_s)]}
            top={HEAD + LANE * lanes.lanes.length}
            height={LANE}
            onChange={onChange}
          />
          {lanes.flashes.map((flash) => (
            <line
              key={flash.label}
              x1={x(flash.at_s)}
              x2={x(flash.at_s)}
              y1={HEAD - 6}
              y2={height + 2}
              className={classes.flash}
            >
              <title>{`${flash.label} fires at ${axisTime(flash.at_s)}`}</title>
            </line>
          ))}
          {lanes.lanes[part]?.phases.map((phase, index) => {
            const top = HEAD + part * LANE
            const seconds = phase.ends_s - phase.begins_s
            return (
              <circle
                key={index}
                cx={x(phase.ends_s)}
                cy={top + LANE / 2}
                r={6}
                className={classes.handle}
                tabIndex={0}
                role="slider"
                aria-label={`How long phase ${index + 1} lasts`}
                aria-valuenow={seconds}
                aria-valuetext={axisTime(seconds)}
                {...dragged(seconds, (seconds) => last(index, seconds))}
              />
            )
          })}
          <g
            tabIndex={0}
            role="slider"
            aria-label="The moment that is looked at"
            aria-valuenow={at}
            aria-valuetext={axisTime(at)}
            className={classes.scrub}
            {...dragged(at, (seconds) => onAt(round(seconds)))}
          >
            <line x1={x(at)} x2={x(at)} y1={10} y2={height + 2} />
            <path d={`M${x(at) - 6} 3h12v6l-6 6-6-6z`} />
          </g>
          {x.ticks(8).map((tick) => (
            <text key={tick} x={x(tick)} y={height + 15} className={classes.tick}>
              {axisTime(tick)}
            </text>
          ))}
        </svg>
      </div>
    </div>
  )
}
