import { Checkbox } from '@mantine/core'
import { useIntersection } from '@mantine/hooks'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import { answered, client, type JobShot, type Setup, type ShotName } from '../api/client'
import { ShotFrame } from '../marks/ShotFrame'
import { judged } from './judged'
import { said } from './said'
import { useSetSo } from './useSetSo'
import classes from './JobShots.module.css'

/** Width of a frame here, in pixels. */
const WIDTH = 336

type Props = {
  shots: ShotName[]
  isIn: (shot: ShotName) => boolean
  onIn: (shot: ShotName, is: boolean) => void
  /** What was found for a shot, where it is planned for. */
  of: (shot: ShotName) => JobShot | undefined
}

/** The shots of a job, each with the frame that its units give, how they are set, and what is open then. */
export function JobShots({ shots, isIn, onIn, of }: Props) {
  return (
    <ul className={classes.shots}>
      {shots.map((shot) => {
        const found = of(shot)
        return (
          <li
            key={shot.id}
            className={classes.shot}
            data-job={found?.can}
            data-out={!isIn(shot) || undefined}
          >
            <JobFrame id={shot.id} setup={found?.set?.setup} />
            <div className={classes.words}>
              <div className={classes.head}>
                <Checkbox
                  size="xs"
                  aria-label={`Plan for ${shot.title}`}
                  checked={isIn(shot)}
                  onChange={(event) => onIn(shot, event.currentTarget.checked)}
                />
                <h3>
                  <Link to={`/shots/${shot.id}`}>{shot.title}</Link>
                </h3>
              </div>
              {found && (
                <p className={classes.units}>
                  {found.can
                    ? said(found.with)
                    : found.hire.length > 0
                      ? `hire ${said(found.hire)}`
                      : 'not with this kit'}
                </p>
              )}
              {found?.set && (
                <p>
                  <span className="mono">{found.set.exposure}</span> · {judged(found.set)}
                </p>
              )}
              {found?.note && <p className={classes.note}>{found.note}</p>}
            </div>
          </li>
        )
      })}
    </ul>
  )
}

/** The frame of a saved shot, with a set-up in place where there is one; drawn once it is in sight. */
function JobFrame({ id, setup }: { id: string; setup: Setup | undefined }) {
  const { ref, entry } = useIntersection({ rootMargin: '200px' })
  const [seen, setSeen] = useState(false)
  if (entry?.isIntersecting && !seen) setSeen(true)
  const kept = useQuery({
    queryKey: ['shots', 'of-job', id],
    queryFn: () => answered(client.GET('/api/shots/{id}', { params: { path: { id } } })),
    enabled: seen,
  }).data?.shot
  const there = useSetSo(kept, setup) ?? kept
  return (
    <div ref={ref} className={classes.frame}>
      {there && <ShotFrame shot={there} width={WIDTH} />}
    </div>
  )
}
