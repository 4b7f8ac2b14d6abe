import { Button, Group, Modal, SimpleGrid, Stack, Text } from '@mantine/core'
import { useEffect, useRef } from 'react'
import { picture, WHOLE, type Shot, type ShotAnswer } from '../api/client'
import classes from './Conflict.module.css'

type Props = { mine: Shot; theirs: ShotAnswer | undefined; onSettle: (keep: 'mine' | 'theirs') => void }

/** Two windows changed one shot: both are shown, one is kept, the other stays in the history. */
export function Conflict({ mine, theirs, onSettle }: Props) {
  return (
    <Modal
      opened={!!theirs}
      onClose={() => onSettle('theirs')}
      withCloseButton={false}
      closeOnClickOutside={false}
      closeOnEscape={false}
      size="lg"
      title="This shot was changed in another window"
    >
      {theirs && (
        <Stack gap="sm">
          <Text size="sm">Both are safe. Keep one; the other can be reached with undo.</Text>
          <SimpleGrid cols={2}>
            <Side title="Yours, here" shot={mine} action="Keep mine" onPick={() => onSettle('mine')} />
            <Side
              title="The other window's"
              shot={theirs.shot}
              action="Take theirs"
              onPick={() => onSettle('theirs')}
            />
          </SimpleGrid>
        </Stack>
      )}
    </Modal>
  )
}

function Side({
  title,
  shot,
  action,
  onPick,
}: {
  title: string
  shot: Shot
  action: string
  onPick: () => void
}) {
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
  const { camera, flash } = shot
  return (
    <Stack gap={6}>
      <Text fw={700}>{title}</Text>
      <canvas ref={canvas} className={classes.frame} />
      <Text size="sm" className="mono">
        {camera.shutter} · f/{camera.aperture_f} · ISO {camera.iso} · power {+flash.power.toFixed(3)} at{' '}
        {flash.distance_m} m
      </Text>
      <Group>
        <Button size="xs" onClick={onPick}>
          {action}
        </Button>
      </Group>
    </Stack>
  )
}
