import { Modal, SimpleGrid, Text, Title } from '@mantine/core'
import { KEYS } from './commands'
import classes from './Shell.module.css'

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
