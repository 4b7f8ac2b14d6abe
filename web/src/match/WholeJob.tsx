import { Button, Checkbox, Text } from '@mantine/core'
import { useState } from 'react'
import type { JobAnswer, Packed, ShotName } from '../api/client'
import { useShotNames } from '../api/names'
import { Waiting } from '../shell/Waiting'
import { useJob } from './useJob'
import classes from './Match.module.css'

/** The smallest set of units that does all shots of the day, and what to hire for those it cannot. */
export function WholeJob() {
  const [ticked, setTicked] = useState<Record<string, boolean>>({})
  const list = useShotNames()
  const shots = list.data ?? []
  // What nobody has planned yet is left out until it is ticked.
  const isIn = (shot: ShotName) => ticked[shot.id] ?? !shot.untouched
  const taken = shots.filter(isIn).map((shot) => shot.id)
  const { job, progress, stopped, refusal, stop, again } = useJob(list.data && taken)
  if (!list.data) return <Waiting what="the job" error={list.error} onRetry={() => void list.refetch()} />
  if (refusal) return <Waiting what="the job" error={refusal} onRetry={again} />
  return (
    <div className={classes.wide} data-testid="job" aria-busy={!!progress}>
      {progress && (
        <p className={classes.count} role="status">
          Going through the kit
          {progress.of > 0 && ` · ${progress.done} of ${progress.of} units at a light`}…{' '}
          <Button size="compact-xs" variant="default" onClick={stop}>
            Stop
          </Button>
        </p>
      )}
      {stopped && (
        <p className={classes.count} role="status">
          Stopped.{' '}
          <Button size="compact-xs" variant="default" onClick={again}>
            Go on
          </Button>
        </p>
      )}
      {shots.length > 0 && taken.length === 0 && (
        <p className={classes.count} role="status">
          No shot is chosen: tick those of the day, and what to take for them stands here.
        </p>
      )}
      {job && (
        <p className={classes.take}>
          Take <b>{said(job.take)}</b>
          {job.mass_kg != null && ` · ${job.mass_kg.toFixed(1)} kg without modifiers`}.{' '}
          {job.hire.length > 0 && (
            <>
              Hire <b>{said(job.hire)}</b>.
            </>
          )}
          <small>
            {job.proven
              ? `No smaller set than these ${job.units} does all of them.`
              : 'A good set; there may be a smaller one.'}
          </small>
        </p>
      )}
      <table className={classes.crew}>
        <tbody>
          {shots.map((shot) => {
            const of = job?.shots[taken.indexOf(shot.id)]
            return (
              <tr key={shot.id} data-job={of?.can}>
                <td>
                  <Checkbox
                    size="xs"
                    aria-label={`Plan for ${shot.title}`}
                    checked={isIn(shot)}
                    onChange={(event) => setTicked({ ...ticked, [shot.id]: event.currentTarget.checked })}
                  />
                </td>
                <th scope="row">{shot.title}</th>
                <td>
                  {of &&
                    (of.can
                      ? said(of.with)
                      : of.hire.length > 0
                        ? `hire ${said(of.hire)}`
                        : 'not with this kit')}
                </td>
                <td>{of?.note}</td>
              </tr>
            )
          })}
        </tbody>
      </table>
      <Text size="xs" c="dimmed">
        Every shot with all its lights, as saved, each with what it asks for.
      </Text>
      {job && job.pack.length > 0 && <PackingList job={job} />}
    </div>
  )
}

const said = (units: JobAnswer['take']) =>
  units.map(({ name, count }) => (count === 1 ? name : `${count} × ${name}`)).join(', ')

const HEADINGS: Record<Packed['kind'], string> = {
  unit: 'Units',
  modifier: 'In front of them',
  gel: 'Gels',
  battery: 'Batteries',
  trigger: 'Triggers',
  lamp: 'Lamps',
  stand: 'To stand on',
  camera: 'Camera',
  lens: 'Lenses',
  filter: 'Before the lens',
}

/** Everything that goes into the cases, to be ticked while packing. */
function PackingList({ job }: { job: JobAnswer }) {
  const kinds = [...new Set(job.pack.map(({ kind }) => kind))]
  return (
    <section data-testid="pack" aria-label="Packing list">
      <h2 className={classes.packTitle}>
        To pack{' '}
        <small>
          {job.pack_kg.toFixed(1)} kg weighed
          {job.unweighed > 0 && `, ${job.unweighed} things never weighed`}
        </small>
      </h2>
      <div className={classes.pack}>
        {kinds.map((kind) => (
          <div key={kind}>
            <h3>{HEADINGS[kind]}</h3>
            {job.pack
              .filter((line) => line.kind === kind)
              .map((line) => (
                <Checkbox
                  key={line.name}
                  size="xs"
                  label={
                    <>
                      {line.count > 1 && <b className="mono">{line.count} × </b>}
                      {line.name}
                      {line.mass_kg != null && <small> {line.mass_kg.toFixed(1)} kg</small>}
                    </>
                  }
                />
              ))}
          </div>
        ))}
      </div>
    </section>
  )
}
