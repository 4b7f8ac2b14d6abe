import { Group, Stack, Text } from '@mantine/core'
import type { ReactNode } from 'react'
import type { Shot } from '../api/client'
import { ShotFrame } from '../marks/ShotFrame'

type Props = { title: string; shot: Shot; children?: ReactNode }

/** One of two versions side by side: its frame and its settings. */
export function Side({ title, shot, children }: Props) {
  const { camera, lights } = shot
  const key = lights.find((light) => light.role === 'key') ?? lights[0]!
  return (
    <Stack gap={6}>
      <Text fw={700}>{title}</Text>
      <ShotFrame shot={shot} />
      <Text size="sm" className="mono">
        {camera.shutter} · f/{camera.aperture_f} · ISO {camera.iso} · power {+key.power.toFixed(3)} at{' '}
        {key.distance_m} m
      </Text>
      {children && <Group>{children}</Group>}
    </Stack>
  )
}
