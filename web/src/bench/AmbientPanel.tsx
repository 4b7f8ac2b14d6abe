import { Button, Group, SegmentedControl, Stack, Text, Tooltip } from '@mantine/core'
import { memo } from 'react'
import { Opened } from './Bay'
import { choices } from '../words/choices'
import { Key } from '../commands/Key'
import { useCommands } from '../commands/useCommands'
import { answered, client, type Forecast, type Problem, type Reading, type Shot } from '../api/client'
import { Figure } from '../controls/Figure'
import { TimeFigure } from '../controls/TimeFigure'
import { Daylight } from './Daylight'
import { Lamps, More, Targets } from './More'
import { placed, signedStops } from '../words/figures'
import classes from './Controls.module.css'

type Place = 'subject' | 'background'
type Props = {
  shot: Shot
  forecast: Forecast | undefined
  refusal: Problem | undefined
  /** Nobody has read it: it is what is typical for the place. */
  guessed: boolean
  /** The light changed: what is held stays. */
  onChange: (shot: Shot) => void
  /** Anything else of the shot. */
  onShot: (shot: Shot) => void
}

function written(reading: Reading): string {
  switch (reading.as) {
    case 'lux':
      return `${reading.lux} lx`
    case 'ev100':
      return `EV ${reading.ev}`
    case 'exposure':
      return `f/${reading.aperture_f} ${reading.shutter} · ${reading.iso}`
    case 'black':
      return `black at ${reading.shutter}`
  }
}

/** The steady light as it was read, and where it falls. */
export const AmbientPanel = memo(function AmbientPanel({
  shot,
  forecast,
  refusal,
  guessed,
  onChange,
  onShot,
}: Props) {
  const rows: { place: Place; label: string; light: Forecast['ambient_subject'] | undefined }[] = [
    { place: 'subject', label: 'Subject', light: forecast?.ambient_subject },
    { place: 'background', label: 'Back', light: forecast?.ambient_background },
  ]
  return (
    <section className={classes.block} aria-label="Ambient">
      <h2 className={classes.title}>
        Ambient
        <span className={classes.spacer} />
        <OtherSky shot={shot} onChange={onChange} />
        <Daylight shot={shot} onTake={onChange} onChange={onShot} />
      </h2>
      {rows.map(({ place, label, light }) => (
        <div key={place} className={classes.reading}>
          <span className={classes.readingLabel}>
            {label}
            {guessed && place === 'subject' && <span className={classes.guess}> · a guess</span>}
          </span>
          <Opened width={330} side="left">
            <Opened.Target>
              <Button
                size="compact-xs"
                radius="xl"
                variant="default"
                className={classes.readingButton}
                data-reading={place}
              >
                {written(shot.ambient[place])}
              </Button>
            </Opened.Target>
            <Opened.Dropdown>
              <ReadingForm
                place={place}
                shot={shot}
                light={light}
                problem={refusal}
                onChange={(reading) => onChange({ ...shot, ambient: { ...shot.ambient, [place]: reading } })}
                onShot={onChange}
              />
            </Opened.Dropdown>
          </Opened>
          <b className={`${classes.placed} mono`} data-testid={`placed-${place}`}>
            {placed(light?.placement_stops)}
          </b>
        </div>
      ))}
      <div className={classes.reading}>
        <span className={classes.readingLabel}>Flash against ambient</span>
        <b className={`${classes.placed} mono`}>
          {forecast?.flash_over_ambient_stops == null
            ? '–'
            : `${signedStops(forecast.flash_over_ambient_stops)} stops`}
        </b>
      </div>
      <div className={classes.more}>
        <More side="left" word={wantedWord(shot)} choose="targets" width={760}>
          <Targets shot={shot} seen={forecast?.subject} refusal={refusal} onChange={onShot} />
        </More>
        <More side="left" word={lampsWord(shot, forecast)} choose="lamps" width={620}>
          <Lamps shot={shot} forecast={forecast} refusal={refusal} onChange={onShot} />
        </More>
      </div>
    </section>
  )
})

/** What the exposure stands on, in a few words. */
function wantedWord({ targets }: Shot): string {
  const whole = signedStops(targets.subject_stops)
  return targets.lead === 'daylight' ? `Daylight leads, ${whole}` : `Wanted ${whole}`
}

/** How many lamps burn, and the colour of the trails they draw. */
function lampsWord(shot: Shot, forecast: Forecast | undefined): string {
  const burning = forecast?.lamps.length ?? 0
  const lamps = burning === 0 ? 'Lamps' : burning === 1 ? '1 lamp' : `${burning} lamps`
  const colour = forecast?.colour
  return colour && colour.trail_word !== 'alike'
    ? `${lamps} · trails ${colour.trail_word}`
    : `${lamps} · ${shot.ambient.kelvin ?? 5500} K`
}

/** The shot with the light that was kept for another sky in place of the one that counts, or beginning to keep one. */
export function underOtherSky(shot: Shot): Shot {
  const { subject, background, other } = shot.ambient
  return { ...shot, ambient: { ...(other ?? { subject, background }), other: { subject, background } } }
}

/** Two readings of the steady light, one for each sky: one press, and the other one counts. */
function OtherSky({ shot, onChange }: { shot: Shot; onChange: (shot: Shot) => void }) {
  const { other } = shot.ambient
  const turn = () => onChange(underOtherSky(shot))
  useCommands({ sky: turn })
  return (
    <Tooltip
      label={
        other
          ? `The other sky: ${written(other.subject)}. Press and it counts; what is held stays`
          : 'Keep these readings, and enter others for when the sky changes'
      }
      multiline
      maw={280}
    >
      <Button
        size="compact-xs"
        radius="xl"
        variant="default"
        data-choose="sky"
        aria-pressed={!!other}
        onClick={turn}
      >
        {other ? `⇄ ${written(other.subject)}` : '+ sky'}&nbsp;
        <Key of="sky" />
      </Button>
    </Tooltip>
  )
}

type FormProps = {
  place: Place
  shot: Shot
  light: Forecast['ambient_subject'] | undefined
  problem: Problem | undefined
  onChange: (reading: Reading) => void
  onShot: (shot: Shot) => void
}

function ReadingForm({ place, shot, light, problem, onChange, onShot }: FormProps) {
  const reading = shot.ambient[place]
  const error = (field: string) =>
    problem?.field === `ambient.${place}.${field}` ? problem.detail : undefined
  // Read in another way it is the same light; what cannot be computed is said where it stands.
  const readAs = (form: Reading['as']) =>
    answered(client.POST('/api/reread', { body: { shot, background: place === 'background', form } })).then(
      onChange,
      () => undefined,
    )
  const back = (field: string) => (problem?.field === `background.${field}` ? problem.detail : undefined)
  return (
    <Stack gap="xs">
      <SegmentedControl
        size="xs"
        aria-label="Read as"
        value={reading.as}
        onChange={(as) => void readAs(as as Reading['as'])}
        data={choices({
          exposure: 'f / time / ISO',
          ev100: 'EV at ISO 100',
          lux: 'lux',
          black: 'black at',
        })}
      />
      {reading.as === 'lux' && (
        <Figure
          label="Illuminance"
          suffix=" lx"
          data-autofocus
          value={reading.lux}
          error={error('lux')}
          onChange={(lux) => onChange({ as: 'lux', lux })}
        />
      )}
      {reading.as === 'ev100' && (
        <Figure
          label="Exposure value"
          step={0.1}
          data-autofocus
          value={reading.ev}
          error={error('ev')}
          onChange={(ev) => onChange({ as: 'ev100', ev })}
        />
      )}
      {reading.as === 'black' && (
        <Text size="xs" c="dimmed">
          A frame without flash at these settings showed nothing: the steady light is at most so much, and the
          most is counted.
        </Text>
      )}
      {(reading.as === 'exposure' || reading.as === 'black') && (
        <Group grow gap="xs" align="start">
          <Figure
            label="f/"
            data-autofocus
            value={reading.aperture_f}
            error={error('aperture_f')}
            onChange={(aperture_f) => onChange({ ...reading, aperture_f })}
          />
          <TimeFigure
            label="Time"
            value={reading.shutter}
            error={error('shutter')}
            onChange={(shutter) => shutter !== undefined && onChange({ ...reading, shutter })}
          />
          <Figure
            label="ISO"
            value={reading.iso}
            error={error('iso')}
            onChange={(iso) => onChange({ ...reading, iso })}
          />
        </Group>
      )}
      {light && (
        <Text size="sm" className="mono">
          {light.illuminance_lx?.toLocaleString('en', { maximumSignificantDigits: 4 })} lx
          {light.placement_stops != null && ` · ${signedStops(light.placement_stops)} stops here`}
        </Text>
      )}
      {place === 'background' ? (
        <Group grow gap="xs" align="start">
          <Figure
            label="Tone"
            step={0.01}
            value={shot.background.reflectance}
            error={back('reflectance')}
            onChange={(reflectance) => onShot({ ...shot, background: { ...shot.background, reflectance } })}
          />
          <Figure
            label="Behind by"
            title="How far it is behind the subject"
            suffix=" m"
            step={0.5}
            value={shot.background.behind_m}
            error={back('behind_m')}
            onChange={(behind_m) => onShot({ ...shot, background: { ...shot.background, behind_m } })}
          />
          <Figure
            label="Flash on it"
            title="What flags, grids and angle take off the flash that reaches it: −2 stops leaves a quarter"
            suffix=" stops"
            step={0.5}
            value={shot.background.spill_stops}
            error={back('spill_stops')}
            onChange={(spill_stops) => onShot({ ...shot, background: { ...shot.background, spill_stops } })}
          />
        </Group>
      ) : (
        <Text size="xs" c="dimmed">
          Where it shall fall is set under Wanted, or by dragging its rung on the ladder.
        </Text>
      )}
    </Stack>
  )
}
