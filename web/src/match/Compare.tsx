import { Button, Modal, SimpleGrid, Text } from '@mantine/core'
import { useQueries } from '@tanstack/react-query'
import { answered, client, type MatchRow, type Shot } from '../api/client'
import { Bars } from './Bars'
import { Frame } from './Preview'

type Props = { shot: Shot; rows: MatchRow[]; onApply: (row: MatchRow) => void; onClose: () => void }

/** Two to four set-ups side by side, each with the frame it would give. */
export function Compare({ shot, rows, onApply, onClose }: Props) {
  const shots = useQueries({
    queries: rows.map(({ setup }) => ({
      queryKey: ['set-up', shot, setup],
      queryFn: () => answered(client.POST('/api/match/apply', { body: { shot, setup } })),
    })),
  })
  return (
    <Modal opened onClose={onClose} size={rows.length > 2 ? 1220 : 900} title="Side by side">
      <SimpleGrid cols={rows.length} data-testid="compare">
        {rows.map((row, index) => {
          const there = shots[index]?.data
          return (
            <section key={`${row.title}-${row.how}`} data-compared={index}>
              <Text fw={700} mb={4}>
                {row.title}
              </Text>
              {there && <Frame shot={there} name={row.exposure} />}
              <Button size="xs" mt={4} onClick={() => onApply(row)}>
                Set the shot so
              </Button>
              <Text size="sm" mt={6}>
                {row.how} · freezes {row.freeze}
                {row.weight_kg != null && ` · ${row.weight_kg.toFixed(1)} kg`} ·{' '}
                {row.ways.toLocaleString('en-GB')} ways
              </Text>
              <Bars margins={row.margins} most={8} />
            </section>
          )
        })}
      </SimpleGrid>
    </Modal>
  )
}
