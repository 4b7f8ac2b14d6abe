import { Group, Stack, Text } from '@mantine/core'
import type { ReactNode } from 'react'
import type { Shot } from '../api/client'
import { ShotFrame } from '../marks/ShotFrame'

type Props = { title: string; shot: Shot; children?: ReactNode }

/** One of two versions side by side: its frame and its settings. */
export function Side({ title, shot, children }: Props) {
  const { camera, lights } = shot
  return (
    <Stack gap={6}>
      <Text fw={700}>{title}</Text>
      <ShotFrame shot={shot} />
      <Text size="sm" className="mono">
        {camera.shutter} · f/{camera.aperture_f} · ISO {camera.iso}
        {lights.length > 1
          ? ` · ${lights.length} lights`
          : ` · ${lights[0]!.unit.name} ${lights[0]!.on_camera ? 'on the camera' : `at ${lights[0]!.distance_m} m`}`}
      </Text>
      {children && <Group>{children}</Group>}
    </Stack>
  )
}
