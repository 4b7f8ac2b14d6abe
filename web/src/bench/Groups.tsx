import { BaySheet } from './Bay'
import { ActionIcon, Button, Table, Text } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { answered, client, Refusal, type GroupAnswer, type GroupShape, type Shot } from '../api/client'
import { Figure } from '../controls/Figure'
import { applied } from '../api/applied'
import { paced } from '../words/figures'
import classes from './Drag.module.css'

const FIRST: GroupShape[] = [
  { people: 1, rows: 1, row_gap_m: 0.8, curve_m: 0 },
  { people: 3, rows: 1, row_gap_m: 0.8, curve_m: 0.2 },
  { people: 6, rows: 2, row_gap_m: 0.8, curve_m: 0.3 },
  { people: 14, rows: 2, row_gap_m: 0.8, curve_m: 0.6 },
]

type Props = { shot: Shot; onChange: (shot: Shot) => void; onTake: (shot: Shot) => void; onClose: () => void }

/** Groups of people: how deep they stand, and what the depth for each costs on camera and lights. */
export function Groups({ shot, onChange, onTake, onClose }: Props) {
  const shapes = shot.groups ?? []
  const put = (groups: GroupShape[]) => onChange({ ...shot, groups })
  const { data, error } = useQuery({
    queryKey: ['groups', shot],
    queryFn: () => answered(client.POST('/api/groups', { body: shot })),
    enabled: shapes.length > 0,
    gcTime: 0,
    retry: false,
    placeholderData: (before: GroupAnswer[] | undefined) => before,
  })
  const refused = (index: number, field: keyof GroupShape) =>
    error instanceof Refusal && error.problem.field === `groups[${index}].${field}`
      ? error.problem.detail
      : undefined
  const last = shapes.at(-1)
  return (
    <BaySheet title="Groups and depth" onClose={onClose}>
      <div className={classes.drag} data-testid="groups">
        {shapes.length === 0 ? (
          <Text size="sm">
            Say who will stand there, and the aperture for each group is found, with what it costs on each
            light.
          </Text>
        ) : (
          <Table verticalSpacing={4} fz="sm">
            <Table.Thead>
              <Table.Tr>
                {[
                  'People',
                  'Rows',
                  'Row to row',
                  'Curve',
                  'Deep',
                  'Wide',
                  'Sharp from … to',
                  'Turn, and what becomes of the light',
                  '',
                ].map((name) => (
                  <Table.Th key={name}>{name}</Table.Th>
                ))}
              </Table.Tr>
            </Table.Thead>
            <Table.Tbody>
              {shapes.map((shape, index) => {
                const seen = data?.[index]
                const figure = (field: keyof GroupShape, step: number, suffix = '') => (
                  <Figure
                    w={suffix ? 84 : 62}
                    aria-label={field}
                    suffix={suffix}
                    step={step}
                    value={shape[field]}
                    error={refused(index, field)}
                    onChange={(value) =>
                      put(
                        shapes.map((one, at) =>
                          at === index ? { ...one, [field]: suffix ? value : Math.trunc(value) } : one,
                        ),
                      )
                    }
                  />
                )
                return (
                  <Table.Tr key={index} data-group={index}>
                    <Table.Td>{figure('people', 1)}</Table.Td>
                    <Table.Td>{figure('rows', 1)}</Table.Td>
                    <Table.Td>{figure('row_gap_m', 0.1, ' m')}</Table.Td>
                    <Table.Td>{figure('curve_m', 0.1, ' m')}</Table.Td>
                    <Table.Td className="mono" style={{ whiteSpace: 'nowrap' }}>
                      {seen && paced(seen.depth_m)}
                    </Table.Td>
                    <Table.Td className="mono">
                      {seen && paced(seen.width_m)}
                      {seen && !seen.fits && (
                        <small>
                          {' '}
                          {seen.back_m == null
                            ? `fits from ${paced(seen.fits_from_m)}`
                            : `camera ${paced(seen.back_m)} back`}
                        </small>
                      )}
                    </Table.Td>
                    <Table.Td className="mono" style={{ whiteSpace: 'nowrap' }}>
                      {seen?.sharp}
                    </Table.Td>
                    <Table.Td>
                      {seen && (seen.not ?? (seen.said || 'nothing to turn'))}
                      {seen?.becomes.map((line) => (
                        <Text key={line} size="xs" c="dimmed" data-becomes>
                          {line}
                        </Text>
                      ))}
                      {seen?.spoils && (
                        <Text size="sm" fw={700} data-spoils>
                          {seen.spoils}
                        </Text>
                      )}
                    </Table.Td>
                    <Table.Td style={{ whiteSpace: 'nowrap' }}>
                      <Button
                        size="compact-xs"
                        variant="default"
                        data-take
                        disabled={!seen || !!seen.not}
                        onClick={() =>
                          seen &&
                          onTake({
                            ...applied(shot, seen.changes),
                            subject: { ...shot.subject, depth_m: +seen.depth_m.toFixed(2) },
                          })
                        }
                      >
                        Take
                      </Button>{' '}
                      <ActionIcon
                        size="sm"
                        variant="default"
                        aria-label="Remove this group"
                        onClick={() => put(shapes.filter((_, at) => at !== index))}
                      >
                        ×
                      </ActionIcon>
                    </Table.Td>
                  </Table.Tr>
                )
              })}
            </Table.Tbody>
          </Table>
        )}
        <Button
          size="xs"
          variant="default"
          w="max-content"
          data-add-group
          onClick={() => put(last ? [...shapes, { ...last, people: last.people + 4 }] : FIRST)}
        >
          {last ? 'One more group' : 'Begin with one, three, six and fourteen people'}
        </Button>
        <Text size="xs" c="dimmed">
          Row to row by the shoulders, 0.55 m a person; a head and feet take 0.3 m. A lens is sharp in a
          plane: a row that curves towards the camera needs its curve in depth. Flash and steady light stay
          where they fall as far as power, shutter and ISO go; who does not fit is seen from farther back.
        </Text>
      </div>
    </BaySheet>
  )
}
