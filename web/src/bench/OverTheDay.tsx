import { SimpleGrid, Text, TextInput } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { scaleLinear, scaleLog } from 'd3-scale'
import { area, line } from 'd3-shape'
import { useEffect, useState, type KeyboardEvent, type PointerEvent } from 'react'
import { answered, client, Refusal, type Shot, type Sky, type SkyDay } from '../api/client'
import { Figure } from '../controls/Figure'
import { preferences } from '../words/preferred'
import classes from './OverTheDay.module.css'

type Props = { shot: Shot; onChange: (shot: Shot) => void }

const two = (value: number) => String(value).padStart(2, '0')

/** Now and here by the clock of this machine; where it is, it does not know. */
function fresh(): Sky {
  const now = new Date()
  return {
    latitude_deg: 52,
    longitude_deg: 0,
    date: `${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}`,
    time: `${two(now.getHours())}:${two(now.getMinutes())}`,
    utc_offset_min: preferences().utc_offset_min ?? -now.getTimezoneOffset(),
    cloud_stops: 0,
  }
}

/** How the light will change over the day, and how long to wait for less of it. */
export function OverTheDay({ shot, onChange }: Props) {
  const [sky, setSky] = useState(() => shot.sky ?? fresh())
  const [touched, setTouched] = useState(false)
  const put = (change: Partial<Sky>) => {
    setTouched(true)
    setSky({ ...sky, ...change })
  }
  const query = useQuery({
    queryKey: ['sky', sky],
    queryFn: () => answered(client.POST('/api/sky', { body: sky })),
    gcTime: 0,
    placeholderData: (before: SkyDay | undefined) => before,
  })
  // Half a date is no date: only what the program could work with goes into the shot.
  const worked = touched && query.isSuccess && !query.isPlaceholderData
  useEffect(() => {
    if (!worked) return
    setTouched(false)
    onChange({ ...shot, sky })
  }, [worked, shot, sky, onChange])
  const problem = query.error instanceof Refusal ? query.error.problem : undefined
  const error = (field: keyof Sky) => (problem?.field === field ? problem.detail : undefined)
  return (
    <div data-testid="sky">
      <SimpleGrid cols={6} spacing="xs" mb={6}>
        <Figure
          label="Latitude"
          suffix="°"
          value={sky.latitude_deg}
          error={error('latitude_deg')}
          onChange={(latitude_deg) => put({ latitude_deg })}
        />
        <Figure
          label="Longitude"
          suffix="°"
          value={sky.longitude_deg}
          error={error('longitude_deg')}
          onChange={(longitude_deg) => put({ longitude_deg })}
        />
        <TextInput
          size="xs"
          label="Day"
          value={sky.date}
          error={error('date')}
          onChange={(event) => put({ date: event.currentTarget.value })}
        />
        <TextInput
          size="xs"
          label="Time"
          value={sky.time}
          error={error('time')}
          onChange={(event) => put({ time: event.currentTarget.value })}
        />
        <Figure
          label="Clock ahead"
          suffix=" h"
          step={0.5}
          value={sky.utc_offset_min / 60}
          error={error('utc_offset_min')}
          onChange={(hours) => put({ utc_offset_min: Math.round(hours * 60) })}
        />
        <Figure
          label="Clouds take"
          suffix=" stops"
          step={0.5}
          value={sky.cloud_stops}
          error={error('cloud_stops')}
          onChange={(cloud_stops) => put({ cloud_stops })}
        />
      </SimpleGrid>
      {query.data && (
        <>
          <DayFigure day={query.data} onTime={(time) => put({ time })} />
          <Waits day={query.data} />
        </>
      )}
      <Text size="xs" c="dimmed" mt={4}>
        {query.data?.notes.join(' ')}
      </Text>
    </div>
  )
}

const WIDTH = 690
const HEIGHT = 150
const LEFT = 72
const RIGHT = WIDTH - 8
const TOP = 8
const FLOOR = HEIGHT - 20

function DayFigure({ day, onTime }: { day: SkyDay; onTime: (time: string) => void }) {
  const { points, now } = day
  const x = scaleLinear([0, 1440], [LEFT, RIGHT])
  const y = scaleLog([1e-3, 2e5], [FLOOR, TOP]).clamp(true)
  const shape = area<SkyDay['points'][number]>()
    .x((at) => x(at.minute))
    .y0(FLOOR)
    .y1((at) => y(at.lux))
  const edge = line<SkyDay['points'][number]>()
    .x((at) => x(at.minute))
    .y((at) => y(at.lux))
  const written = (minute: number) => {
    const whole = Math.max(0, Math.min(1439, Math.round(minute / 5) * 5))
    return `${two(Math.floor(whole / 60))}:${two(whole % 60)}`
  }
  const moved = (event: PointerEvent<SVGSVGElement>) => {
    if (!(event.buttons & 1)) return
    const box = event.currentTarget.getBoundingClientRect()
    onTime(written(x.invert(((event.clientX - box.left) / box.width) * WIDTH)))
  }
  const keyed = (event: KeyboardEvent) => {
    const by = { ArrowLeft: -10, ArrowRight: 10, PageDown: -60, PageUp: 60 }[event.key]
    if (by === undefined) return
    event.preventDefault()
    onTime(written(now.minute + by))
  }
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className={classes.figure}
      role="slider"
      tabIndex={0}
      aria-label="Time of day"
      aria-valuemin={0}
      aria-valuemax={1439}
      aria-valuenow={now.minute}
      aria-valuetext={`${now.time}, ${lux(now.lux)}`}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId)
        moved(event)
      }}
      onPointerMove={moved}
      onKeyDown={keyed}
    >
      {[1e-2, 1, 100, 1e4].map((tick) => (
        <g key={tick} className={classes.grid}>
          <line x1={LEFT} x2={RIGHT} y1={y(tick)} y2={y(tick)} />
          <text x={LEFT - 6} y={y(tick)} dy="0.35em" textAnchor="end">
            {lux(tick)}
          </text>
        </g>
      ))}
      {[0, 6, 12, 18, 24].map((hour) => (
        <text key={hour} x={x(hour * 60)} y={HEIGHT - 5} textAnchor="middle" className={classes.hour}>
          {hour}
        </text>
      ))}
      <path d={shape(points) ?? undefined} className={classes.light} />
      <path d={edge(points) ?? undefined} className={classes.edge} />
      {day.drops.map(
        (drop) =>
          drop.at && (
            <g key={drop.stops} className={classes.drop} transform={`translate(${x(drop.at.minute)} 0)`}>
              <line y1={y(drop.at.lux)} y2={FLOOR} />
            </g>
          ),
      )}
      <g className={classes.now} transform={`translate(${x(now.minute)} 0)`}>
        <line y1={TOP} y2={FLOOR} />
        <circle cy={y(now.lux)} r="5" />
      </g>
    </svg>
  )
}

/** Illuminance in as few digits as mean anything. */
const lux = (value: number) => `${value.toLocaleString('en', { maximumSignificantDigits: 2 })} lx`

/** How long to wait, in minutes while they are few. */
const wait = (minutes: number) =>
  minutes < 100 ? `${minutes} min` : `${Math.floor(minutes / 60)} h ${two(minutes % 60)}`

function Waits({ day }: { day: SkyDay }) {
  return (
    <div className={classes.waits}>
      <b>
        {day.now.time}: about {lux(day.now.lux)}
      </b>
      <span>
        {day.rises ? `sun up ${day.rises}` : 'no sunrise'}, {day.sets ? `down ${day.sets}` : 'no sunset'}
      </span>
      {day.drops.map((drop) => (
        <span key={drop.stops} data-drop={drop.stops}>
          −{drop.stops} {drop.stops === 1 ? 'stop' : 'stops'}{' '}
          {drop.at ? `${drop.at.time}, in ${wait(drop.minutes ?? 0)}` : 'not today'}
        </span>
      ))}
    </div>
  )
}
