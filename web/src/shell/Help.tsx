import { Modal, Text, TextInput, Title } from '@mantine/core'
import { useState } from 'react'
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

type Props = {
  opened: boolean
  /** The groups that this screen has. */
  here: readonly Group[]
  onClose: () => void
}

/** The keys of this screen, or those that are looked for on any; and the product's own three words. */
export function Help({ opened, here, onClose }: Props) {
  const [find, setFind] = useState('')
  const wanted = find.trim().toLowerCase()
  const matches = ([key, words]: [string, string]) =>
    words.toLowerCase().includes(wanted) || key.toLowerCase() === wanted
  const groups = GROUPS.filter((group) => wanted !== '' || here.includes(group))
    .map((group) => ({ group, rows: told(group).filter((row) => wanted === '' || matches(row)) }))
    .filter(({ rows }) => rows.length > 0)
  return (
    <Modal
      opened={opened}
      onClose={onClose}
      onExitTransitionEnd={() => setFind('')}
      size={1080}
      title="Keys and words"
    >
      <TextInput
        size="sm"
        aria-label="Find a key by what it does, on any screen"
        placeholder="Find by what it does, on any screen"
        data-autofocus
        mb="sm"
        value={find}
        onChange={(event) => setFind(event.currentTarget.value)}
      />
      <div className={classes.groups}>
        {groups.map(({ group, rows }) => (
          <section key={group}>
            <Title order={3} size="sm">
              {group}
            </Title>
            <dl className={classes.keys}>
              {rows.map(([key, meaning]) => (
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
      {groups.length === 0 && (
        <Text size="sm">No key does that. Ctrl+K finds shots, things and commands.</Text>
      )}
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
