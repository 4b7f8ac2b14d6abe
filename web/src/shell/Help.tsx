import { Modal, Text, Title } from '@mantine/core'
import { COMMANDS, GROUPS, keyOf, ON_A_MARK, type CommandId, type Group } from '../commands/list'
import classes from './Shell.module.css'

const WORDS: [string, string][] = [
  ['Pebble', 'a part that is held still'],
  ['Skim', 'a part with a touch of softness'],
  ['Dash', 'a part that draws a streak'],
]

/** What a group has to tell: its commands by their keys, and the keys of its marks. */
const told = (group: Group): [string, string][] => [
  ...(Object.keys(COMMANDS) as CommandId[])
    .filter((id) => COMMANDS[id].group === group && COMMANDS[id].key)
    .map((id): [string, string] => [keyOf(id), COMMANDS[id].words]),
  ...ON_A_MARK.filter((one) => one.group === group).map(({ keys, words }): [string, string] => [keys, words]),
]

/** Every key, and the product's own three words. */
export function Help({ opened, onClose }: { opened: boolean; onClose: () => void }) {
  return (
    <Modal opened={opened} onClose={onClose} size={1080} title="Keys and words">
      <div className={classes.groups}>
        {GROUPS.map((group) => (
          <section key={group}>
            <Title order={3} size="sm">
              {group}
            </Title>
            <dl className={classes.keys}>
              {told(group).map(([key, meaning]) => (
                <div key={`${key} ${meaning}`}>
                  <dt>
                    <kbd>{key}</kbd>
                  </dt>
                  <dd>{meaning}</dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </div>
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
