import { Button, Stack, Text } from '@mantine/core'
import type { FlashUnit, Sheet } from '../api/client'
import { signedStops } from '../words/figures'
import { FilePick } from '../controls/FilePick'
import { SeverityMark } from '../marks/SeverityMark'
import { apart, BEHAVES, figure, sourced } from './words'
import classes from './UnitFacts.module.css'

type Props = {
  unit: FlashUnit
  sheet: Sheet
  reading: boolean
  onTrace: (file: File) => void
  onRehearse: () => void
  onForget: (index: number) => void
  /** A reading of a meter counts from now on, or no longer. */
  onCount: (index: number, counts: boolean) => void
}

const EARLY = { dim: 'fires dimmer', missing: 'does not fire' }
const HOT = { waits: 'recycles slowly', refuses: 'does not fire' }
const LOW = { slower: 'takes longer', dim: 'dimmer, and says ready', refuses: 'stops' }

/** What is known of a unit and how: its output in every form, its recordings, its habits. */
export function UnitFacts({ unit, sheet, reading, onTrace, onRehearse, onForget, onCount }: Props) {
  return (
    <Stack gap="sm" className={classes.facts}>
      <OutputForms unit={unit} sheet={sheet} />
      <Recordings
        unit={unit}
        sheet={sheet}
        reading={reading}
        onTrace={onTrace}
        onRehearse={onRehearse}
        onForget={onForget}
      />
      <Readings unit={unit} onCount={onCount} />
      <Habits unit={unit} />
      <section>
        {sheet.remarks.map((sentence) => (
          <p key={sentence} className={classes.remark}>
            <SeverityMark severity="watch" size={14} /> {sentence}
          </p>
        ))}
      </section>
    </Stack>
  )
}

function OutputForms({ unit, sheet }: { unit: FlashUnit; sheet: Sheet }) {
  const { output } = sheet
  const about = output.estimated ? '≈ ' : ''
  const span = output.guide_number_span_m
  return (
    <section data-testid="output">
      <h3 className={classes.title}>
        Output, full and bare <small>{sourced(unit.output_from)}</small>
      </h3>
      <dl className={classes.list}>
        <dt>Guide number</dt>
        <dd>
          {about}
          {figure(output.guide_number_m)} m{span && ` (${figure(span[0]!, 2)} to ${figure(span[1]!, 2)})`}
        </dd>
        {output.apertures.map(({ distance_m, aperture_f }) => (
          <div key={distance_m} className={classes.pair}>
            <dt>At {distance_m} m</dt>
            <dd>
              {about}f/{figure(aperture_f)}
            </dd>
          </div>
        ))}
        <dt>Exposure, 1 m</dt>
        <dd>
          {about}
          {figure(output.exposure_1m_lxs)} lx·s
        </dd>
        <dt>Joules</dt>
        <dd>
          {output.stored_joules != null ? `${figure(output.stored_joules)} J stored` : 'not known'}, as{' '}
          {figure(output.usual_joules)} J usually give
        </dd>
        {output.against_leaflet_stops != null && (
          <>
            <dt>Leaflet</dt>
            <dd>{signedStops(output.against_leaflet_stops)} stops against it</dd>
          </>
        )}
      </dl>
    </section>
  )
}

function Recordings({ unit, sheet, reading, onTrace, onRehearse, onForget }: Omit<Props, 'onCount'>) {
  const recordings = unit.recordings ?? []
  const verdict = sheet.recordings
  return (
    <section data-testid="recordings">
      <h3 className={classes.title}>
        Durations{' '}
        <small>{recordings.length && verdict?.used ? 'recorded' : sourced(unit.durations_from)}</small>
      </h3>
      {recordings.length > 0 && (
        <ul className={classes.recordings}>
          {recordings.map((one, index) => (
            <li key={index}>
              <b className="mono">{powerWord(sheet, one.power)}</b>
              <span>
                t0.1 {figure(one.t01_ms)} ms, t0.5 {figure(one.t05_ms)} ms
                <small>{[one.on, one.with].filter(Boolean).join(', ')}</small>
              </span>
              <Button
                size="compact-xs"
                variant="default"
                aria-label={`Take out the recording at ${powerWord(sheet, one.power)}`}
                onClick={() => onForget(index)}
              >
                ×
              </Button>
            </li>
          ))}
        </ul>
      )}
      {verdict && (
        <Text size="sm" data-testid="verdict">
          The figures entered are {apart(verdict.against_entered)} from what was recorded.{' '}
          {verdict.misfit != null
            ? `Its way, fitted through them, stays ${apart(verdict.misfit)} off.`
            : `${verdict.more_powers} more ${verdict.more_powers === 1 ? 'power' : 'powers'} and the way is fitted through them.`}
          {verdict.behaves_as && verdict.best_misfit != null && (
            <>
              {' '}
              It behaves most like {BEHAVES[verdict.behaves_as]} ({apart(verdict.best_misfit)} off).
            </>
          )}
        </Text>
      )}
      <div className={classes.bring}>
        <FilePick accept=".csv,.txt,.tsv,text/*" loading={reading} onFile={onTrace}>
          Bring a recording
        </FilePick>
        <Button size="compact-sm" variant="default" radius="xl" onClick={onRehearse} disabled={reading}>
          Rehearse one
        </Button>
      </div>
      <Text size="xs" c="dimmed">
        Or drop a CSV of time and level anywhere here. A rehearsal fires a simulated unit, a little slower
        than its figures, before a simulated recorder.
      </Text>
    </section>
  )
}

/** What meters have read of it, the latest first: its history. */
function Readings({ unit, onCount }: Pick<Props, 'unit' | 'onCount'>) {
  const readings = [...(unit.readings ?? []).entries()].reverse()
  if (readings.length === 0) return null
  return (
    <section data-testid="readings">
      <h3 className={classes.title}>
        Metered <small>against its figures</small>
      </h3>
      <ul className={classes.recordings}>
        {readings.map(([index, one]) => (
          <li key={index}>
            <b className="mono">{signedStops(one.stops)}</b>
            <span>
              through {one.through}
              <small>
                {one.on}, {one.read}
              </small>
            </span>
            <Button
              size="compact-xs"
              variant="default"
              aria-pressed={one.counts}
              onClick={() => onCount(index, !one.counts)}
            >
              {one.counts ? 'Counts' : 'Does not count'}
            </Button>
          </li>
        ))}
      </ul>
    </section>
  )
}

const powerWord = (sheet: Sheet, power: number) =>
  sheet.powers.find((at) => Math.abs(at.power / power - 1) < 0.01)?.power_label ?? figure(power)

function Habits({ unit }: { unit: FlashUnit }) {
  const habits: [string, string][] = [
    ['Before ready', unit.when_early ? EARLY[unit.when_early] : 'not known'],
    [
      'When hot',
      unit.heat
        ? `${HOT[unit.heat.then]}, after ${figure(unit.heat.capacity_j / 1e3)} kJ from cold`
        : 'not known',
    ],
    ['Low battery', unit.low_battery ? LOW[unit.low_battery] : unit.battery ? 'not known' : 'has none'],
    ['Never sooner', unit.min_interval_ms != null ? `than ${figure(unit.min_interval_ms)} ms` : 'not known'],
    [
      'Turned down',
      unit.lowest_power_mired != null
        ? `${signedStops(unit.lowest_power_mired, 0)} mired at lowest, ${unit.lowest_power_mired > 0 ? 'warmer' : 'bluer'}`
        : 'colour not known',
    ],
    ['Fed by', unit.battery?.name ?? 'mains, or not said'],
    ['Own delay', unit.lag_ms == null ? 'not known' : `${figure(unit.lag_ms)} ms`],
  ]
  return (
    <section data-testid="habits">
      <h3 className={classes.title}>Habits</h3>
      <dl className={classes.list}>
        {habits.map(([name, what]) => (
          <div key={name} className={classes.pair}>
            <dt>{name}</dt>
            <dd>{what}</dd>
          </div>
        ))}
      </dl>
    </section>
  )
}
