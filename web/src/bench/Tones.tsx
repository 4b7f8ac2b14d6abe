import { ActionIcon, Button, Group, Stack, Table, Text, TextInput } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { answered, client, Refusal, type Shot, type Tone } from '../api/client'
import { Figure } from '../controls/Figure'
import { signedStops } from '../words/figures'

const FIRST: Tone[] = [
  { name: 'clothes', share: 0.25, reflectance: 0.3, relative_distance: 1 },
  { name: 'skin', share: 0.05, reflectance: 0.36, relative_distance: 1 },
  { name: 'backdrop', share: 0.7, reflectance: 0.08, relative_distance: 1.6 },
]
/** White kit, as it comes from the shop. */
const WHITE = 0.8

type Props = { shot: Shot; onChange: (shot: Shot) => void }

/** What is in the frame, as automatic flash meters it, and what to dial in against it. */
export function Tones({ shot, onChange }: Props) {
  const [next, setNext] = useState(WHITE)
  const tones = shot.tones ?? []
  const put = (tones: Tone[]) => onChange({ ...shot, tones })
  const body = {
    tones,
    next: tones.map((tone, index) => (index === 0 ? { ...tone, reflectance: next } : tone)),
  }
  const { data, error } = useQuery({
    queryKey: ['metering', body],
    queryFn: () => answered(client.POST('/api/metering', { body })),
    enabled: tones.length > 0,
    gcTime: 0,
    retry: false,
  })
  const refused = (index: number, field: keyof Tone) =>
    error instanceof Refusal && error.problem.field === `tones[${index}].${field}`
      ? error.problem.detail
      : undefined
  if (tones.length === 0)
    return (
      <Stack gap="xs">
        <Text size="sm">
          Automatic flash aims at a middle grey. Say what is in the frame, and it is told what to add.
        </Text>
        <Button size="xs" variant="default" data-add-tones onClick={() => put(FIRST)}>
          Begin with clothes, skin and backdrop
        </Button>
      </Stack>
    )
  return (
    <Stack gap="xs" data-testid="tones">
      <Table verticalSpacing={2} fz="sm">
        <Table.Thead>
          <Table.Tr>
            <Table.Th>What</Table.Th>
            <Table.Th>Of the frame</Table.Th>
            <Table.Th>Tone</Table.Th>
            <Table.Th title="1 is as far from the flash as the subject">Distance, the subject at 1</Table.Th>
            <Table.Th>Out</Table.Th>
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody>
          {tones.map((tone, index) => {
            const change = (to: Partial<Tone>) =>
              put(tones.map((one, at) => (at === index ? { ...one, ...to } : one)))
            const figure = (field: 'share' | 'reflectance' | 'relative_distance', step: number) => (
              <Figure
                aria-label={`${field} of ${tone.name}`}
                step={step}
                value={tone[field]}
                error={refused(index, field)}
                onChange={(value) => change({ [field]: value })}
              />
            )
            return (
              <Table.Tr key={index}>
                <Table.Td>
                  <TextInput
                    size="xs"
                    aria-label="Name of the tone"
                    value={tone.name}
                    onChange={(event) => change({ name: event.currentTarget.value })}
                  />
                </Table.Td>
                <Table.Td>{figure('share', 0.05)}</Table.Td>
                <Table.Td>{figure('reflectance', 0.05)}</Table.Td>
                <Table.Td>{figure('relative_distance', 0.1)}</Table.Td>
                <Table.Td>
                  <ActionIcon
                    size="sm"
                    variant="default"
                    aria-label={`Remove ${tone.name}`}
                    onClick={() => put(tones.filter((_, at) => at !== index))}
                  >
                    ×
                  </ActionIcon>
                </Table.Td>
              </Table.Tr>
            )
          })}
        </Table.Tbody>
      </Table>
      <Group gap="sm" align="end" wrap="nowrap">
        <Figure
          w={150}
          label={`Next group's ${tones[0]!.name}`}
          step={0.05}
          value={next}
          onChange={setNext}
        />
        <Button
          size="xs"
          variant="default"
          onClick={() => put([...tones, { ...FIRST[2]!, name: `tone ${tones.length + 1}`, share: 0.1 }])}
        >
          One more tone
        </Button>
      </Group>
      {data && (
        <Text size="sm" data-testid="bias">
          Dial in <b className="mono">{signedStops(data.bias_stops)}</b> on automatic flash; left alone, the
          picture is off by the opposite.
          {data.change_stops != null && (
            <>
              {' '}
              When the next group stands there:{' '}
              <b className="mono">{signedStops(data.next_bias_stops ?? 0)}</b>, a turn of{' '}
              <b className="mono">{signedStops(data.change_stops)}</b>.
            </>
          )}
        </Text>
      )}
    </Stack>
  )
}
