import { Button, Group, Popover, Select, TextInput } from '@mantine/core'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { answered, client, type Shot } from '../api/client'
import { SMALL } from './small'

type Props = {
  shotNow: () => Shot
  onChange: (shot: Shot) => void
  /** What of an arrangement could not stay as it was, or what was kept. */
  onSaid: (says: string[]) => void
}

/** Lights kept by a name, or those of another shot, put on this one; and these kept for others. */
export function Arrangements({ shotNow, onChange, onSaid }: Props) {
  const shots = useQuery({
    queryKey: ['shots', 'arrangements'],
    queryFn: () => answered(client.GET('/api/shots', { params: { query: {} } })),
  })
  const arrange = useMutation({
    mutationFn: async (id: string) => {
      const { shot: like } = await answered(client.GET('/api/shots/{id}', { params: { path: { id } } }))
      return answered(client.POST('/api/floor/arranged', { body: { shot: shotNow(), like } }))
    },
    onMutate: () => onSaid([]),
    onSuccess: ({ shot, says }) => {
      onChange(shot)
      onSaid(says)
    },
  })
  const all = shots.data?.shots ?? []
  const named = (template: boolean) =>
    all.filter((one) => one.template === template).map((one) => ({ value: one.id, label: one.title }))
  return (
    <>
      <Select
        size="xs"
        radius="xl"
        w={170}
        searchable
        aria-label="Lights as in another shot"
        placeholder="Lights as in …"
        value={null}
        error={arrange.error?.message}
        data={[
          { group: 'Kept by name', items: named(true) },
          { group: 'Shots', items: named(false) },
        ].filter(({ items }) => items.length > 0)}
        onChange={(id) => id && arrange.mutate(id)}
      />
      <Keeping shotNow={shotNow} onSaid={onSaid} />
    </>
  )
}

type KeepingProps = { shotNow: () => Shot; onSaid: (says: string[]) => void }

/** These lights under a name of their own. */
function Keeping({ shotNow, onSaid }: KeepingProps) {
  const [open, setOpen] = useState(false)
  const [name, setName] = useState('')
  const queries = useQueryClient()
  const keep = useMutation({
    mutationFn: () =>
      answered(client.POST('/api/shots', { body: { ...shotNow(), title: name.trim(), template: true } })),
    onSuccess: ({ shot }) => {
      onSaid([`Kept as ${shot.title}: put it on any shot, or begin one from it.`])
      setOpen(false)
      setName('')
      void queries.invalidateQueries({ queryKey: ['shots'] })
    },
  })
  return (
    <Popover opened={open} onChange={setOpen} trapFocus position="bottom-end" radius="md" shadow="md">
      <Popover.Target>
        <Button {...SMALL} onClick={() => setOpen(!open)}>
          Keep lights
        </Button>
      </Popover.Target>
      <Popover.Dropdown>
        <form
          aria-label="Keep these lights"
          onSubmit={(event) => {
            event.preventDefault()
            if (name.trim()) keep.mutate()
          }}
        >
          <Group align="end" gap="xs" wrap="nowrap">
            <TextInput
              size="xs"
              w={240}
              label="Keep these lights as"
              placeholder="Two corners and one bounced"
              value={name}
              error={keep.error?.message}
              onChange={(event) => {
                setName(event.currentTarget.value)
                keep.reset()
              }}
            />
            <Button size="xs" radius="xl" type="submit" disabled={!name.trim()} loading={keep.isPending}>
              Keep
            </Button>
          </Group>
        </form>
      </Popover.Dropdown>
    </Popover>
  )
}
