import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useEffect, useRef } from 'react'
import { answered, client, picture, WHOLE, type Setup, type Shot } from '../api/client'
import classes from './Match.module.css'

const WIDTH = 480

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
  const canvas = useRef<HTMLCanvasElement>(null)
  useEffect(() => {
    let gone = false
    picture(shot, WIDTH, 'both', WHOLE).then(
      (image) => {
        const element = canvas.current
        if (gone || !element) return
        element.width = image.width
        element.height = image.height
        element.getContext('2d')?.putImageData(image, 0, 0)
      },
      () => undefined,
    )
    return () => {
      gone = true
    }
  }, [shot])
  return (
    <figure className={classes.frame}>
      <canvas ref={canvas} />
      <figcaption>{name}</figcaption>
    </figure>
  )
}
