import { Button, Group, Modal, Stack, Text, TextInput } from '@mantine/core'
import { useState } from 'react'
import type { Counted } from './useRecordings'

type Props = { counted: Counted; busy: boolean; onClose: () => void }

/** A recording that counts its samples: how far apart they are is asked for, never guessed. */
export function AskInterval({ counted, busy, onClose }: Props) {
  const [interval, setInterval] = useState('')
  return (
    <Modal opened onClose={onClose} size={520} title={`Recording: ${counted.name}`}>
      <form
        onSubmit={(event) => {
          event.preventDefault()
          counted.read(interval)
        }}
      >
        <Stack gap="xs">
          <Text size="sm" role="status">
            {counted.words}
          </Text>
          <Group gap="xs" align="end">
            <TextInput
              size="xs"
              label="From sample to sample, or samples a second"
              placeholder="2 µs, or 48 kHz"
              data-autofocus
              value={interval}
              onChange={(event) => setInterval(event.currentTarget.value)}
            />
            <Button size="xs" type="submit" loading={busy}>
              Read it
            </Button>
          </Group>
        </Stack>
      </form>
    </Modal>
  )
}
