import { Button, Text } from '@mantine/core'
import { Opened } from './Bay'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { answered, client, type Equivalent, type Shot } from '../api/client'
import { useCommands } from '../commands/useCommands'
import { applied } from '../api/applied'
import { pixels } from '../words/figures'
import classes from './Ways.module.css'

type Props = { shot: Shot; onTake: (shot: Shot) => void }

/** Other settings with the same light, each with what it costs in pulse, noise and depth. */
export function Ways({ shot, onTake }: Props) {
  const [opened, setOpened] = useState(false)
  useCommands({ ways: () => setOpened(true) })
  const ways = useQuery({
    queryKey: ['equivalents', opened ? shot : null],
    queryFn: () => answered(client.POST('/api/equivalents', { body: shot })),
    enabled: opened,
    gcTime: 0,
    placeholderData: (before: Equivalent[] | undefined) => before,
  }).data
  return (
    <Opened width={560} side="left" opened={opened} onChange={setOpened}>
      <Opened.Target>
        <Button
          data-choose="ways"
          size="compact-xs"
          radius="xl"
          variant="default"
          aria-expanded={opened}
          onClick={() => setOpened(!opened)}
        >
          Ways <kbd className={classes.key}>W</kbd>
        </Button>
      </Opened.Target>
      <Opened.Dropdown>
        <Text size="sm" mb={4}>
          The same light by other settings
        </Text>
        <table className={classes.table} data-testid="ways">
          <thead>
            <tr>
              <th>Camera</th>
              <th>Power</th>
              <th>t0.1</th>
              <th>Blur</th>
              <th>Sharp from … to</th>
            </tr>
          </thead>
          <tbody>
            {ways?.map((way) => (
              <tr key={way.exposure} aria-current={way.changes.length === 0 || undefined}>
                <td>
                  <Button
                    size="compact-xs"
                    variant={way.changes.length === 0 ? 'filled' : 'default'}
                    fullWidth
                    justify="start"
                    onClick={() => onTake(applied(shot, way.changes))}
                  >
                    {way.exposure}
                  </Button>
                </td>
                <td>{way.power}</td>
                <td>{way.pulse}</td>
                <td>{pixels(way.blur_px)}</td>
                <td>{way.depth}</td>
              </tr>
            ))}
          </tbody>
        </table>
        {ways?.length === 0 && <Text size="sm">No other settings give this light.</Text>}
      </Opened.Dropdown>
    </Opened>
  )
}
