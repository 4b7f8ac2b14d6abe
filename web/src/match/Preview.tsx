import type { Setup, Shot } from '../api/client'
import { ShotFrame } from '../marks/ShotFrame'
import { useSetSo } from './useSetSo'
import classes from './Match.module.css'

/** The frame as the shot is set, and as the set-up in hand would give it. */
export function Preview({ shot, setup }: { shot: Shot; setup: Setup | undefined }) {
  const there = useSetSo(shot, setup)
  return (
    <div className={classes.frames}>
      <Frame shot={shot} name="as it is set" />
      {there && <Frame shot={there} name="with the set-up in hand" />}
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
