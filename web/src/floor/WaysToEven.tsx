import { Button } from '@mantine/core'
import { useMutation } from '@tanstack/react-query'
import { answered, client, type Shot } from '../api/client'
import classes from './Floor.module.css'

type Props = { shot: Shot; onChange: (shot: Shot) => void }

/** As uneven as a bar is wide, in stops. */
const WIDEST = 3

/** All lights together over the area: as they stand, each on its line, in the corners, one in the middle, side by side. */
export function WaysToEven({ shot, onChange }: Props) {
  const asked = useMutation({
    mutationFn: (shot: Shot) => answered(client.POST('/api/floor/even', { body: shot })),
  })
  // What was found for another set says nothing of this one.
  const answer = asked.variables === shot ? asked.data : undefined
  const ways = answer?.ways
  return (
    <div className={classes.ways} aria-live="polite">
      {!ways && (
        <Button
          size="compact-sm"
          radius="xl"
          variant="default"
          loading={asked.isPending}
          data-do="ways-to-even"
          onClick={() => asked.mutate(shot)}
        >
          All lights: ways to light it evenly
        </Button>
      )}
      {asked.error && asked.variables === shot && <p role="alert">{asked.error.message}</p>}
      {ways && ways.length > 0 && (
        <p className={classes.harms}>Spread over the area · share within a third</p>
      )}
      {ways && ways.length > 0 && (
        <ul aria-label="Ways to light it evenly">
          {ways.map((way) => (
            <li key={way.name} data-way={way.name}>
              <b>{way.name}</b>
              <span className={classes.uneven} aria-hidden>
                <span style={{ width: `${Math.min(way.spread_stops / WIDEST, 1) * 100}%` }} />
              </span>
              <span className="mono">
                {way.spread_stops.toFixed(1)} stops · {Math.round(way.within_third * 100)} %
              </span>
              {way.says && (
                <p>
                  {way.says} · {way.at_mark_says}
                </p>
              )}
              {way.spoils && <p className={classes.harms}>Not offered: it {way.spoils}.</p>}
              {way.shot && !way.spoils && (
                <Button size="compact-xs" radius="xl" variant="default" onClick={() => onChange(way.shot!)}>
                  Set so
                </Button>
              )}
            </li>
          ))}
        </ul>
      )}
      {answer?.says && <p className={classes.says}>{answer.says}</p>}
    </div>
  )
}
