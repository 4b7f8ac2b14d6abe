import { memo, useEffect, useRef } from 'react'
import { picture, WHOLE, type Shot } from '../api/client'
import classes from './ShotFrame.module.css'

const WIDTH = 480

/** The simulated frame of a shot, small. */
export const ShotFrame = memo(function ShotFrame({ shot, width = WIDTH }: { shot: Shot; width?: number }) {
  const canvas = useRef<HTMLCanvasElement>(null)
  useEffect(() => {
    const control = new AbortController()
    picture(shot, width, 'both', WHOLE, { signal: control.signal }).then(
      (image) => {
        const element = canvas.current
        if (control.signal.aborted || !element) return
        element.width = image.width
        element.height = image.height
        element.getContext('2d')?.putImageData(image, 0, 0)
      },
      () => undefined,
    )
    return () => control.abort()
  }, [shot, width])
  return <canvas ref={canvas} className={classes.frame} />
})
