import { Anchor, Modal, Table, Text } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import { answered, client, type Setup, type Shot } from '../api/client'

type Props = { shot: Shot; setup: Setup; onClose: () => void }

/** A set-up as a chain from joules to pixels, each step with its rule and its page. */
export function Explain({ shot, setup, onClose }: Props) {
  const chains = useQuery({
    queryKey: ['chain', shot, setup],
    queryFn: () => answered(client.POST('/api/match/explain', { body: { shot, setup } })),
  })
  return (
    <Modal opened onClose={onClose} size={860} title="From joules to pixels">
      {chains.error && (
        <Text role="alert" c="var(--dp-trouble)">
          {chains.error.message}
        </Text>
      )}
      {chains.data?.map((chain) => (
        <Table key={chain.light} verticalSpacing={4} fz="sm" captionSide="top" data-testid="chain">
          <Table.Caption>{chain.light}</Table.Caption>
          <Table.Tbody>
            {chain.steps.map((step) => (
              <Table.Tr key={step.title}>
                <Table.Td fw={700}>{step.title}</Table.Td>
                <Table.Td className="mono">{step.formula}</Table.Td>
                <Table.Td c="dimmed">{step.figures}</Table.Td>
                <Table.Td fw={700} ta="right">
                  {step.result}
                </Table.Td>
                <Table.Td>
                  <Anchor component={Link} to={`/notes/${step.page}`} size="xs" data-page={step.page}>
                    why
                  </Anchor>
                </Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      ))}
    </Modal>
  )
}
