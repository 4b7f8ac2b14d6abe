import { Button, Modal, SimpleGrid, Stack, Text } from '@mantine/core'
import type { Shot, ShotAnswer } from '../api/client'
import { Side } from './Side'

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
            <Side title="Yours, here" shot={mine}>
              <Button size="xs" onClick={() => onSettle('mine')}>
                Keep mine
              </Button>
            </Side>
            <Side title="The other window's" shot={theirs.shot}>
              <Button size="xs" onClick={() => onSettle('theirs')}>
                Take theirs
              </Button>
            </Side>
          </SimpleGrid>
        </Stack>
      )}
    </Modal>
  )
}
