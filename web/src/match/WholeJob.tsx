import { Button, Checkbox, Text } from '@mantine/core'
import { useState } from 'react'
import type { JobAnswer, Packed, ShotName } from '../api/client'
import { useShotNames } from '../api/names'
import { Waiting } from '../shell/Waiting'
import { JobShots } from './JobShots'
import { said } from './said'
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
  const { job, of = [], progress, stopped, refusal, stop, again } = useJob(list.data && taken)
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
      <JobShots
        shots={shots}
        isIn={isIn}
        onIn={(shot, is) => setTicked({ ...ticked, [shot.id]: is })}
        of={(shot) => (isIn(shot) ? job?.shots[of.indexOf(shot.id)] : undefined)}
      />
      <Text size="xs" c="dimmed">
        Every shot with all its lights, as saved, each with what it asks for; the frames show them set with
        these units.
      </Text>
      {job && job.pack.length > 0 && <PackingList job={job} />}
    </div>
  )
}

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
