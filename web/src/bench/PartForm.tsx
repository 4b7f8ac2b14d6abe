import { Button, Group, SegmentedControl, Select, SimpleGrid, Stack, TextInput } from '@mantine/core'
import { choices } from '../words/choices'
import { useState } from 'react'
import {
  answered,
  client,
  type Intent,
  type Part,
  type PartForecast,
  type Problem,
  type Shot,
} from '../api/client'
import { FigureRows } from '../marks/FigureRows'
import { Figure } from '../controls/Figure'
import { MaybeFigure } from '../controls/MaybeFigure'
import { IntentMark } from '../marks/IntentMark'
import { percent, pixels, signedStops } from '../words/figures'
import { SpeedField } from './SpeedField'
import { StreakWish } from './StreakWish'
import classes from './PartForm.module.css'

const DRAWN = choices<Part['drawn_as']>({
  face: 'head and face',
  body: 'trunk and arms',
  feet: 'legs and feet',
  ropes: 'turning ropes',
  lantern: 'lantern',
  bicycle: 'bicycle',
  blade: 'blade',
  silks: 'hanging cloth',
  medal: 'medals',
  scarf: 'flying scarf',
  hand: 'hand and arm',
  card: 'a card of its size',
  hair: 'hair',
  cloth: 'cloth that hangs or flies',
  ball: 'ball',
  held: 'what is held',
  wheels: 'wheels, board or skates',
  spray: 'water, drops or powder',
})
const INTENTS = choices<Intent>({
  pebble: 'Pebble',
  skim: 'Skim',
  dash: 'Dash',
})

type Props = {
  part: Part
  /** The settings of the frame that a streak was seen in. */
  camera: Shot['camera']
  shotNow: () => Shot
  seen: PartForecast | undefined
  problem: Problem | undefined
  onChange: (part: Part) => void
  onRemove: () => void
}

/** One part: how fast, where to, how large, how bright, and what it shall look like. */
export function PartForm({ part, camera, shotNow, seen, problem, onChange, onRemove }: Props) {
  const put = (change: Partial<Part>) => onChange({ ...part, ...change })
  const error = (field: keyof Part) => (problem?.field?.endsWith(`.${field}`) ? problem.detail : undefined)
  return (
    <Stack gap="xs">
      {seen && <Outcome seen={seen} />}
      <TextInput
        size="xs"
        label="Part"
        value={part.name}
        error={error('name')}
        data-autofocus
        onChange={(event) => put({ name: event.currentTarget.value })}
      />
      <SegmentedControl
        size="sm"
        fullWidth
        aria-label="Intent"
        value={part.intent}
        onChange={(intent) => put({ intent: intent as Intent })}
        data={INTENTS.map(({ value, label }) => ({
          value,
          label: (
            <Group gap={4} justify="center" wrap="nowrap">
              <IntentMark intent={value} size={13} /> {label}
            </Group>
          ),
        }))}
      />
      <SimpleGrid cols={3} spacing="xs" verticalSpacing={6}>
        <SpeedField part={part} shotNow={shotNow} error={error('speed_m_s')} onChange={put} />
        <Figure
          label="Direction"
          suffix="°"
          step={5}
          value={part.direction_deg}
          error={error('direction_deg')}
          leftSection={<Arrow degrees={part.direction_deg} />}
          onChange={(direction_deg) => put({ direction_deg })}
        />
        <Figure
          label="Toward camera"
          suffix="°"
          step={5}
          value={part.out_of_plane_deg}
          error={error('out_of_plane_deg')}
          onChange={(out_of_plane_deg) => put({ out_of_plane_deg })}
        />
        <Figure
          label="Size along it"
          suffix=" m"
          step={0.01}
          value={part.size_m}
          error={error('size_m')}
          onChange={(size_m) => put({ size_m })}
        />
        <MaybeFigure
          label="Round path"
          suffix=" m"
          step={0.1}
          placeholder="goes straight on"
          value={part.path_m}
          error={error('path_m')}
          onChange={(path_m) => put({ path_m })}
        />
        <Figure
          label="Tone"
          kind="share"
          step={0.02}
          value={part.reflectance}
          error={error('reflectance')}
          description="0.18 mid-grey"
          inputWrapperOrder={['label', 'input', 'description', 'error']}
          onChange={(reflectance) => put({ reflectance })}
        />
        <Figure
          label="Steady light"
          suffix=" stops"
          step={0.5}
          value={part.ambient_offset_stops}
          error={error('ambient_offset_stops')}
          description="against subject"
          inputWrapperOrder={['label', 'input', 'description', 'error']}
          onChange={(ambient_offset_stops) => put({ ambient_offset_stops })}
        />
      </SimpleGrid>
      <OwnLight part={part} camera={camera} error={error('luminance_cd_m2')} onChange={put} />
      <Group grow gap="xs" align="end">
        {part.intent === 'dash' && <StreakWish part={part} told={seen} error={error} onChange={put} />}
        {!!camera.movement?.zoom_share && (
          <MaybeFigure
            label="Off the middle"
            suffix=" of frame"
            placeholder="in the middle"
            step={0.05}
            value={part.from_middle_share}
            error={error('from_middle_share')}
            onChange={(from_middle_share) => put({ from_middle_share })}
          />
        )}
        <Select
          size="xs"
          label="Drawn as"
          data={DRAWN}
          value={part.drawn_as}
          allowDeselect={false}
          comboboxProps={{ withinPortal: false }}
          onChange={(drawn_as) => drawn_as && put({ drawn_as: drawn_as as Part['drawn_as'] })}
        />
        <Button size="xs" variant="default" onClick={onRemove}>
          Remove part
        </Button>
      </Group>
    </Stack>
  )
}

type OwnLightProps = {
  part: Part
  camera: Shot['camera']
  error: string | undefined
  onChange: (change: Partial<Part>) => void
}

/** A part that shines by itself: how bright, known by its figure or by one streak in a test frame at these settings. */
function OwnLight({ part, camera, error, onChange }: OwnLightProps) {
  const [stops, setStops] = useState(1)
  const [refusal, setRefusal] = useState<string>()
  const calibrate = () => {
    const { aperture_f, iso, filter_stops, filters = [] } = camera
    const { speed_m_s, size_m } = part
    const body = { aperture_f, iso, filter_stops, filters, speed_m_s, size_m, streak_stops: stops }
    answered(client.POST('/api/streak', { body })).then(
      ({ luminance_cd_m2 }) => {
        setRefusal(undefined)
        onChange({ luminance_cd_m2 })
      },
      (failure: Error) => setRefusal(failure.message),
    )
  }
  return (
    <Group gap="xs" align="end" wrap="nowrap">
      <MaybeFigure
        label="Shines by itself"
        suffix=" cd/m²"
        placeholder="no lamp"
        value={part.luminance_cd_m2}
        error={error}
        onChange={(luminance_cd_m2) => onChange({ luminance_cd_m2 })}
      />
      <Figure
        w={130}
        label="Its streak stood at"
        suffix=" stops"
        step={0.5}
        value={stops}
        error={refusal}
        onChange={setStops}
      />
      <Button size="xs" variant="default" style={{ flex: 'none' }} onClick={calibrate}>
        Go by that frame
      </Button>
    </Group>
  )
}

const DRAWN_BY = { flash: ', by flash', steady: ', by steady light', nothing: ', in the dark' } as const

const onLadder = (stops: number | null | undefined) => (stops == null ? 'black' : signedStops(stops))

/** What becomes of the part, in the numbers behind its chip. */
function Outcome({ seen }: { seen: PartForecast }) {
  const rows: [string, string][] = [
    [
      'Blur in the picture',
      `${seen.blur_px_slowest == null ? '' : `${pixels(seen.blur_px_slowest).replace(' px', '')}–`}${pixels(seen.blur_px)}${DRAWN_BY[seen.drawn_by]}`,
    ],
    ['Of the flash', seen.flash_blur_px == null ? 'no flash' : pixels(seen.flash_blur_px)],
    ['While open', pixels(seen.ambient_travel_px)],
    [
      'Of the frame',
      `${seen.streak_share_slowest == null ? '' : `${percent(seen.streak_share_slowest).replace(' %', '')}–`}${percent(seen.streak_share)}`,
    ],
    ['Dwell', percent(seen.dwell)],
    ['Trail beside', onLadder(seen.beside_stops)],
    ['Through it', onLadder(seen.through_stops)],
    ['Visible by', `ΔL* ${Math.abs(seen.delta_lightness).toFixed(1)}`],
    ...(seen.in_focus_s == null
      ? []
      : [['In focus for', `${Math.round(seen.in_focus_s * 1000)} ms`] satisfies [string, string]]),
  ]
  return <FigureRows rows={rows} className={classes.outcome} />
}

/** The direction as seen in the frame. */
function Arrow({ degrees }: { degrees: number }) {
  return (
    <svg width="18" height="18" viewBox="-9 -9 18 18" aria-hidden="true">
      <path
        d="M-7 0H6M2-4 6 0 2 4"
        transform={`rotate(${-degrees})`}
        fill="none"
        stroke="var(--dp-movement)"
        strokeWidth="2"
        strokeLinecap="round"
      />
    </svg>
  )
}
