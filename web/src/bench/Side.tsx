import { Group, Stack, Text } from '@mantine/core'
import { useEffect, useRef, type ReactNode } from 'react'
import { picture, WHOLE, type Shot } from '../api/client'
import classes from './Side.module.css'

type Props = { title: string; shot: Shot; children?: ReactNode }

/** One of two versions side by side: its frame and its settings. */
export function Side({ title, shot, children }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null)
  useEffect(() => {
    let gone = false
    picture(shot, 480, 'both', WHOLE).then(
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
  const { camera, lights } = shot
  const key = lights.find((light) => light.role === 'key') ?? lights[0]!
  return (
    <Stack gap={6}>
      <Text fw={700}>{title}</Text>
      <canvas ref={canvas} className={classes.frame} />
      <Text size="sm" className="mono">
        {camera.shutter} · f/{camera.aperture_f} · ISO {camera.iso} · power {+key.power.toFixed(3)} at{' '}
        {key.distance_m} m
      </Text>
      {children && <Group>{children}</Group>}
    </Stack>
  )
}
