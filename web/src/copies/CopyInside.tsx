import { Button } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { answered, client, type Copy } from '../api/client'
import { Waiting } from '../shell/Waiting'
import { day, NOW } from './words'
import classes from './Copies.module.css'

/** What a copy has inside, against what is there now, before it is brought back. */
export function CopyInside({ copy, onBringBack }: { copy: Copy; onBringBack: () => void }) {
  const [sure, setSure] = useState(false)
  const look = useQuery({
    queryKey: ['copies', copy.name],
    queryFn: () => answered(client.GET('/api/copies/{id}', { params: { path: { id: copy.name } } })),
  })
  if (!look.data)
    return <Waiting what="what is inside" error={look.error} onRetry={() => void look.refetch()} />
  const { shots, shot_count, thing_count, version_count, damage, lacks } = look.data
  const differing = shots.filter((shot) => shot.now !== 'same').length
  return (
    <>
      <header className={classes.about}>
        <p>
          <b>{shot_count}</b> shots, <b>{thing_count}</b> things of the kit, <b>{version_count}</b> versions.{' '}
          {differing === 0 && !lacks?.length
            ? 'All shots are as they are now.'
            : differing > 0 && `${differing} of its shots are not as they are now.`}
        </p>
        {sure ? (
          <>
            <Button radius="xl" onClick={onBringBack}>
              Yes, bring it back
            </Button>
            <Button radius="xl" variant="default" onClick={() => setSure(false)}>
              Leave it
            </Button>
          </>
        ) : (
          <Button radius="xl" variant="default" disabled={damage.length > 0} onClick={() => setSure(true)}>
            Bring this back…
          </Button>
        )}
      </header>
      {sure && (
        <p className={classes.notice} role="status">
          Shots and kit become what they were {day(copy.made_at)}. What is here now is kept as a copy first.
        </p>
      )}
      {damage.map((line) => (
        <p key={line} className={classes.trouble} role="alert">
          It is damaged: {line}
        </p>
      ))}
      {lacks && lacks.length > 0 && (
        <p className={classes.where}>
          Here now and not in it: <b>{lacks.join(', ')}</b>.
        </p>
      )}
      <ul className={classes.shots}>
        {shots.map((shot) => (
          <li key={shot.id} data-now={shot.now}>
            {shot.now === 'same' ? (
              <img
                src={`/api/shots/${shot.id}/picture?width=240`}
                alt={`Simulated frame of ${shot.title}`}
                width={120}
                height={80}
                loading="lazy"
              />
            ) : (
              <span className={classes.noframe} aria-hidden="true" />
            )}
            <b>{shot.title}</b>
            <small>
              {day(shot.changed_at)} · {NOW[shot.now ?? 'gone']}
            </small>
          </li>
        ))}
      </ul>
    </>
  )
}
