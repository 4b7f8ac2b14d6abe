import { Modal, TextInput, UnstyledButton } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import { useNavigate } from 'react-router'
import { answered, client } from '../api/client'
import { useShotNames } from '../api/names'
import { keyOf } from '../commands/list'
import { commandsNow } from '../commands/useCommands'
import classes from './Palette.module.css'

/** Something that can be run by its name. */
type Command = { name: string; hint: string; run: () => void }

/** More than this nobody reads; another letter finds it. */
const MOST = 12

/** Every shot, every thing of the kit and every command, by a part of its name. */
export function Palette({ onClose }: { onClose: () => void }) {
  const navigate = useNavigate()
  const [wanted, setWanted] = useState('')
  const [at, setAt] = useState(0)
  const shots = useShotNames().data
  const items = useQuery({
    queryKey: ['kit', 'shelf'],
    queryFn: () => answered(client.GET('/api/kit/shelf')),
  }).data?.items
  const all = useMemo<Command[]>(
    () => [
      ...(shots ?? []).map((shot) => ({
        name: shot.title,
        hint: 'shot',
        run: () => void navigate(`/shots/${shot.id}`),
      })),
      ...commandsNow()
        .filter(({ id }) => id !== 'find')
        .map(({ id, told, run }) => ({ name: told.words, hint: keyOf(id) || 'screen', run })),
      ...(items ?? []).map((item) => ({
        name: item.name,
        hint: item.what,
        run: () => void navigate(`/kit/${item.what}/${item.id}`),
      })),
    ],
    [shots, items, navigate],
  )
  const words = wanted.toLowerCase().split(/\s+/).filter(Boolean)
  const found = all
    .filter(({ name, hint }) => words.every((word) => `${name} ${hint}`.toLowerCase().includes(word)))
    .slice(0, MOST)
  const run = (command: Command | undefined) => {
    if (!command) return
    onClose()
    // The dialog listens to keys while it is open: what is run waits for it to go.
    window.setTimeout(command.run, 0)
  }
  return (
    <Modal
      opened
      onClose={onClose}
      withCloseButton={false}
      size="md"
      transitionProps={{ duration: 0 }}
      yOffset={90}
    >
      <TextInput
        data-autofocus
        aria-label="Find a shot, a thing or a command"
        placeholder="Find a shot, a thing or a command"
        value={wanted}
        onChange={(event) => {
          setWanted(event.currentTarget.value)
          setAt(0)
        }}
        onKeyDown={(event) => {
          const by = { ArrowDown: 1, ArrowUp: -1 }[event.key]
          if (by) {
            event.preventDefault()
            setAt((at + by + found.length) % Math.max(found.length, 1))
          } else if (event.key === 'Enter') {
            event.preventDefault()
            run(found[at])
          }
        }}
      />
      <ul className={classes.list} role="listbox" aria-label="Found">
        {found.map((command, index) => (
          <li key={`${command.hint}-${command.name}`} role="option" aria-selected={index === at}>
            <UnstyledButton className={classes.entry} tabIndex={-1} onClick={() => run(command)}>
              {command.name} <kbd>{command.hint}</kbd>
            </UnstyledButton>
          </li>
        ))}
      </ul>
      {found.length === 0 && <p className={classes.none}>Nothing is called that.</p>}
    </Modal>
  )
}
