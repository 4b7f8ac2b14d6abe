import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { answered, client, type Setup, type Shot } from '../api/client'
import { ShotFrame } from '../marks/ShotFrame'
import classes from './Match.module.css'

/** The frame as the shot is set, and as the set-up in hand would give it. */
export function Preview({ shot, setup }: { shot: Shot; setup: Setup | undefined }) {
  const there = useQuery({
    queryKey: ['set-up', shot, setup],
    queryFn: () => answered(client.POST('/api/match/apply', { body: { shot, setup: setup! } })),
    enabled: setup !== undefined,
    placeholderData: keepPreviousData,
    gcTime: 0,
  }).data
  return (
    <div className={classes.frames}>
      <Frame shot={shot} name="as it is set" />
      {there && setup && <Frame shot={there} name="with the set-up in hand" />}
    </div>
  )
}

/** A frame with its name under it. */
export function Frame({ shot, name }: { shot: Shot; name: string }) {
  return (
    <figure className={classes.frame}>
      <ShotFrame shot={shot} />
      <figcaption>{name}</figcaption>
    </figure>
  )
}
