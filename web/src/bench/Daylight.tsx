import { Button, Tabs, Text } from '@mantine/core'
import { Opened } from './Bay'
import { Key } from '../commands/Key'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { answered, client, type Shot, type Way } from '../api/client'
import { useCommands } from '../commands/useCommands'
import { applied } from '../api/applied'
import { SeverityMark } from '../marks/SeverityMark'
import { OverTheDay } from './OverTheDay'
import { pixels, placed } from '../words/figures'
import classes from './Daylight.module.css'

type Props = { shot: Shot; onTake: (shot: Shot) => void; onChange: (shot: Shot) => void }

const ROADS: Record<Way['road'], string> = {
  sync_speed: 'Sync speed, low ISO',
  high_speed: 'High-speed sync',
  filter: 'Grey filter',
}

const ROWS: { label: string; of: (way: Way) => string }[] = [
  { label: 'Camera', of: (way) => way.exposure },
  {
    label: 'Ambient',
    of: (way) => placed(way.ambient_stops),
  },
  { label: 'Units', of: (way) => `${way.units} at ${way.power}` },
  { label: 'Lost to sync', of: (way) => (way.lost_stops ? `${way.lost_stops.toFixed(1)} stops` : 'none') },
  { label: 'Freezes by', of: (way) => way.freeze },
  { label: 'Longest blur', of: (way) => pixels(way.blur_px) },
  { label: 'Sharp', of: (way) => way.depth },
  {
    label: 'Ready again',
    of: (way) => (way.recycle_s == null ? 'not known' : `${way.recycle_s.toFixed(1)} s`),
  },
  {
    label: 'On one charge',
    of: (way) => (way.frames_per_charge == null ? 'not known' : String(way.frames_per_charge)),
  },
]

/** Under the sun: the three ways to keep a bright sky down, and how it will change. */
export function Daylight({ shot, onTake, onChange }: Props) {
  const [opened, setOpened] = useState(false)
  useCommands({ daylight: () => setOpened(true) })
  const ways = useQuery({
    queryKey: ['daylight', opened ? shot : null],
    queryFn: () => answered(client.POST('/api/daylight', { body: shot })),
    enabled: opened,
    gcTime: 0,
    placeholderData: (before: Way[] | undefined) => before,
  }).data
  return (
    <Opened width={720} side="left" opened={opened} onChange={setOpened}>
      <Opened.Target>
        <Button
          size="compact-xs"
          radius="xl"
          variant="default"
          data-choose="daylight"
          aria-expanded={opened}
          onClick={() => setOpened(!opened)}
        >
          Sun&nbsp;
          <Key of="daylight" />
        </Button>
      </Opened.Target>
      <Opened.Dropdown>
        <Tabs defaultValue="ways" keepMounted={false}>
          <Tabs.List mb={6}>
            <Tabs.Tab value="ways">Three ways</Tabs.Tab>
            <Tabs.Tab value="day">Over the day</Tabs.Tab>
          </Tabs.List>
          <Tabs.Panel value="day">
            <OverTheDay shot={shot} onChange={onChange} />
          </Tabs.Panel>
          <Tabs.Panel value="ways">
            <Text size="sm" mb={4}>
              Three ways to the same sky and key
              {shot.targets.ambient_stops == null &&
                '; the sky stays where it is until the ladder gives it a target'}
            </Text>
            <table className={classes.table} data-testid="daylight">
              <thead>
                <tr>
                  <th>Of each</th>
                  {ways?.map((way) => (
                    <th key={way.road} scope="col" data-road={way.road}>
                      <Button
                        size="compact-sm"
                        variant="default"
                        fullWidth
                        disabled={!!way.not}
                        onClick={() => {
                          onTake(applied(shot, way.changes))
                          setOpened(false)
                        }}
                      >
                        {ROADS[way.road]}
                      </Button>
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {ROWS.map(({ label, of }) => (
                  <tr key={label}>
                    <th scope="row">{label}</th>
                    {ways?.map((way) => (
                      <td key={way.road} data-not={way.not ? true : undefined}>
                        {of(way)}
                      </td>
                    ))}
                  </tr>
                ))}
                <tr>
                  <th scope="row">Verdict</th>
                  {ways?.map((way) => (
                    <td key={way.road} className={classes.verdict} data-verdict={way.road}>
                      <SeverityMark severity={way.severity} size={14} /> {way.verdict}
                    </td>
                  ))}
                </tr>
              </tbody>
            </table>
            <Text size="xs" c="dimmed" mt={4}>
              Flash in full sun runs hot: mind the makers' limits, shade the units, and weigh stands against
              wind.
            </Text>
          </Tabs.Panel>
        </Tabs>
      </Opened.Dropdown>
    </Opened>
  )
}
