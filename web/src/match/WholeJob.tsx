import { Checkbox, Text } from '@mantine/core'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { answered, client, type JobAnswer } from '../api/client'
import { Waiting } from '../shell/Waiting'
import classes from './Match.module.css'

/** The smallest set of units that does all shots of the day, and what to hire for those it cannot. */
export function WholeJob() {
  const [left, setLeft] = useState<string[]>([])
  const list = useQuery({ queryKey: ['shots'], queryFn: () => answered(client.GET('/api/shots')) })
  const shots = list.data?.shots ?? []
  const taken = shots.map((shot) => shot.id).filter((id) => !left.includes(id))
  const query = useQuery({
    queryKey: ['whole-job', taken],
    queryFn: ({ signal }) => answered(client.POST('/api/match/job', { body: { shots: taken }, signal })),
    enabled: taken.length > 0,
    gcTime: 0,
    placeholderData: keepPreviousData,
  })
  if (!list.data || (taken.length > 0 && !query.data))
    return (
      <Waiting
        what="the job"
        error={list.error ?? query.error}
        onRetry={() => void (list.refetch(), query.refetch())}
      />
    )
  const job = taken.length > 0 ? query.data : undefined
  return (
    <div className={classes.wide} data-testid="job">
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
                    checked={!left.includes(shot.id)}
                    onChange={(event) =>
                      setLeft(
                        event.currentTarget.checked
                          ? left.filter((id) => id !== shot.id)
                          : [...left, shot.id],
                      )
                    }
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
        Every shot with all its lights, as saved, each with what it asks for. Batteries, stands and modifiers
        come on top.
      </Text>
    </div>
  )
}

const said = (units: JobAnswer['take']) =>
  units.map(({ name, count }) => (count === 1 ? name : `${count} × ${name}`)).join(', ')
