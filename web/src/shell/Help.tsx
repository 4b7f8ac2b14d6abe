import { Modal, SimpleGrid, Text, Title } from '@mantine/core'
import classes from './Shell.module.css'

const KEYS: { title: string; keys: [string, string][] }[] = [
  {
    title: 'Controls',
    keys: [
      ['A', 'Aperture'],
      ['S', 'Shutter'],
      ['I', 'ISO'],
      ['N', 'Filter (ND)'],
      ['F', 'Focal length'],
      ['G', 'Subject distance'],
      ['P', 'Flash power'],
      ['D', 'Flash distance'],
      ['Y', 'Sync'],
      ['← →', 'One click'],
      ['PgUp PgDn', 'Three clicks'],
      ['Home End', 'To the end of the range'],
      ['Space', 'Lock it, or let it follow'],
      ['W', 'Other settings, the same light'],
      ['R', 'Three ways under the sun'],
      ['O', 'The other sky'],
    ],
  },
  {
    title: 'Looking',
    keys: [
      ['1 2 3', 'Both, flash only, ambient only'],
      ['L', 'Loupe to camera pixels; drag to move'],
      ['0', 'The whole frame'],
      ['B', 'Before the last change'],
      ['V', 'Versions, side by side'],
      ['M', 'Moment: + − zoom, ← → move, Enter pulse, 0 all'],
      ['↑ ↓', 'On a rung of the ladder: set its target'],
    ],
  },
  {
    title: 'Kit',
    keys: [
      ['/', 'Find a thing'],
      ['E', 'Change its figures'],
      ['N', 'A new one'],
      ['← →', 'On the curves: one step of the dial'],
    ],
  },
  {
    title: 'Anywhere',
    keys: [
      ['Ctrl+Z', 'Undo'],
      ['Ctrl+Shift+Z', 'Redo'],
      ['Esc', 'Close what is open'],
      ['H', 'All shots'],
      ['K', 'Kit'],
      ['T', 'Set or Daylight'],
      ['?', 'These keys'],
    ],
  },
]

const WORDS: [string, string][] = [
  ['Pebble', 'a part that is held still'],
  ['Skim', 'a part with a touch of softness'],
  ['Dash', 'a part that draws a streak'],
]

/** Every key, and the product's own three words. */
export function Help({ opened, onClose }: { opened: boolean; onClose: () => void }) {
  return (
    <Modal opened={opened} onClose={onClose} size="xl" title="Keys and words">
      <SimpleGrid cols={3}>
        {KEYS.map(({ title, keys }) => (
          <section key={title}>
            <Title order={3} size="sm">
              {title}
            </Title>
            <dl className={classes.keys}>
              {keys.map(([key, meaning]) => (
                <div key={key}>
                  <dt>
                    <kbd>{key}</kbd>
                  </dt>
                  <dd>{meaning}</dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </SimpleGrid>
      <dl className={classes.words}>
        {WORDS.map(([word, meaning]) => (
          <div key={word}>
            <dt>{word}</dt>
            <dd>{meaning}</dd>
          </div>
        ))}
      </dl>
      <Text size="sm" c="dimmed">
        Numbers are forecasts from the figures you enter. Meter, take a test frame, and follow the venue,
        local code and the makers' manuals: weigh down stands, secure overhead lights, keep mains away from
        water, and do not flash at an athlete's decisive moment without leave.
      </Text>
    </Modal>
  )
}
