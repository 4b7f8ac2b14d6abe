import { useEffect, useRef, useState } from 'react'
import { Button, Group, ScrollArea, SimpleGrid, Title } from '@mantine/core'
import type { Item, Problem } from '../api/client'
import { withValue } from '../api/pointer'
import { understood } from '../controls/reading'
import { FieldEntry } from './FieldEntry'
import { type Field } from './field'
import { fieldsOf, missing } from './fields'
import classes from './Entry.module.css'

type Props = {
  draft: Item
  isNew: boolean
  problem: Problem | undefined
  busy: boolean
  onChange: (draft: Item) => void
  onSave: () => void
  onDrop: () => void
}

const WIDE: Field['as'][] = ['source', 'rows', 'corrections']

/** The place of a field in a problem: `control.rows[2].t01_ms` lies in `/control/rows`. */
const atFault = (field: Field, problem: Problem | undefined): boolean => {
  const at = problem?.field?.split('.').filter(Boolean).join('/').replaceAll('[', '/').replaceAll(']', '')
  if (!at) return false
  const holdsMore = WIDE.includes(field.as) || field.as === 'hue'
  return `/${at}` === field.pointer || (holdsMore && `/${at}`.startsWith(`${field.pointer}/`))
}

/** Where the figures of a thing are entered; what they do shows beside it at once. */
export function Entry({ draft, isNew, problem, busy, onChange, onSave, onDrop }: Props) {
  const put = (pointer: string, value: unknown) =>
    onChange({ ...draft, item: withValue(draft.item, pointer, value) } as Item)
  const groups = fieldsOf(draft)
  const [asking, setAsking] = useState(false)
  const now = useRef({ draft, onSave })
  useEffect(() => {
    now.current = { draft, onSave }
  })
  const keep = async (form: HTMLFormElement) => {
    if (!(await understood(form))) return
    const { draft, onSave } = now.current
    if (missing(draft).length === 0) return onSave()
    setAsking(true)
    // What is asked is in the page by now: it has stood there empty.
    form.querySelector<HTMLElement>('[data-needed] input')?.focus()
  }
  const absent = missing(draft).map((field) => field.pointer)
  // A new thing begins with its name.
  const form = useRef<HTMLFormElement>(null)
  useEffect(() => {
    if (isNew) form.current?.querySelector<HTMLElement>('[data-autofocus]')?.focus()
  }, [isNew])
  const placed = groups.some(({ fields }) => fields.some((field) => atFault(field, problem)))
  return (
    <form
      ref={form}
      className={classes.entry}
      aria-label="Figures"
      onSubmit={(event) => {
        event.preventDefault()
        void keep(event.currentTarget)
      }}
    >
      <ScrollArea className={classes.fields} type="auto">
        {groups.map(({ title, fields }) => (
          <section key={title} className={classes.group}>
            <Title order={3} size="sm">
              {title}
            </Title>
            <SimpleGrid cols={2} spacing="xs" verticalSpacing={6}>
              {fields.map((field) => (
                <div
                  key={field.pointer + field.as}
                  data-needed={absent.includes(field.pointer) || undefined}
                  className={
                    WIDE.includes(field.as) || field.pointer === '/control' ? classes.wide : undefined
                  }
                >
                  <FieldEntry
                    field={field}
                    of={draft.item}
                    error={
                      asking && absent.includes(field.pointer)
                        ? 'This is asked first.'
                        : atFault(field, problem)
                          ? problem?.detail
                          : undefined
                    }
                    onChange={(value) => put(field.pointer, value)}
                  />
                </div>
              ))}
            </SimpleGrid>
          </section>
        ))}
      </ScrollArea>
      {problem && !placed && (
        <p role="alert" className={classes.problem}>
          {problem.detail}
        </p>
      )}
      <Group justify="flex-end" gap="xs" className={classes.foot}>
        <Button size="xs" variant="default" onClick={onDrop}>
          Leave as it was
        </Button>
        <Button size="xs" type="submit" loading={busy}>
          Keep
        </Button>
      </Group>
    </form>
  )
}
