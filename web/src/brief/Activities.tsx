import { TextInput } from '@mantine/core'
import { useMutation, useQuery } from '@tanstack/react-query'
import { useEffect, useMemo, useRef, useState } from 'react'
import { useNavigate } from 'react-router'
import { answered, client, type ActivityCard } from '../api/client'
import classes from './Activities.module.css'

type Props = {
  list: ActivityCard[]
  chosen: string | undefined
  onChoose: (id: string) => void
  onEnter: () => void
}

/** Pictures in a row. */
const ROW = 3
const STEPS: Record<string, number> = { ArrowDown: ROW, ArrowUp: -ROW, ArrowRight: 1, ArrowLeft: -1 }

const words = (text: string) =>
  text
    .toLowerCase()
    .split(/[\s,]+/)
    .filter((word) => word !== '')

/** A word as somebody may have bent it: jumps, kicking, races. */
const bent = (word: string) =>
  [
    word,
    word.replace(/s$/, ''),
    word.replace(/es$/, ''),
    word.replace(/ing$/, ''),
    word.replace(/(.)\1ing$/, '$1'),
  ].filter((one, at) => at === 0 || one.length > 2)

/** How well an activity answers to what is typed: by its own name before its other words; not at all where a word is missing. */
function rank(activity: ActivityCard, asked: string[]): number {
  const name = words(activity.name)
  const all = [...name, ...words(activity.also)]
  const answers = (word: string, to: string[]) =>
    to.some((one) => bent(word).some((form) => one.startsWith(form)))
  if (!asked.every((word) => answers(word, all))) return -1
  return asked.filter((word) => answers(word, name)).length
}

/** What happens, chosen from pictures or by typing. */
export function Activities({ list, chosen, onChoose, onEnter }: Props) {
  const [text, setText] = useState('')
  const grid = useRef<HTMLDivElement>(null)
  const found = useMemo(() => {
    const asked = words(text)
    return list
      .map((activity) => ({ activity, rank: rank(activity, asked) }))
      .filter((one) => one.rank >= 0)
      .sort((a, b) => b.rank - a.rank)
      .map((one) => one.activity)
  }, [list, text])
  // What is typed chooses as it is typed: the first that answers to it.
  const type = (typed: string) => {
    setText(typed)
    const asked = words(typed)
    if (asked.length === 0) return
    const best = list
      .map((activity) => ({ activity, rank: rank(activity, asked) }))
      .filter((one) => one.rank >= 0)
      .sort((a, b) => b.rank - a.rank)[0]
    if (best) onChoose(best.activity.id)
  }
  // What is not meant stays in sight, behind it.
  const others = useMemo(() => list.filter((activity) => !found.includes(activity)), [list, found])
  useEffect(() => {
    grid.current?.querySelector('[aria-pressed="true"]')?.scrollIntoView({ block: 'nearest' })
  }, [chosen, text])
  const step = (by: number) => {
    const at = found.findIndex((activity) => activity.id === chosen)
    const next = found[at < 0 ? 0 : Math.min(Math.max(at + by, 0), found.length - 1)]
    if (next) onChoose(next.id)
  }
  return (
    <section className={classes.panel} aria-label="What happens">
      <TextInput
        radius="xl"
        size="sm"
        autoFocus
        autoComplete="off"
        spellCheck={false}
        aria-label="What happens"
        placeholder="rope, kick, first dance …"
        value={text}
        onChange={(event) => type(event.currentTarget.value)}
        onKeyDown={(event) => {
          const by = STEPS[event.key]
          if (event.key === 'Enter') onEnter()
          // To the side within the text, while there is one.
          if (by === undefined || (text !== '' && Math.abs(by) === 1)) return
          event.preventDefault()
          step(by)
        }}
      />
      <div className={classes.grid} ref={grid} data-testid="activities">
        {text === '' && <Templates />}
        {[...found, ...others].map((activity, index) => (
          <button
            key={activity.id}
            type="button"
            className={classes.one}
            data-other={index >= found.length || undefined}
            aria-pressed={activity.id === chosen}
            data-activity={activity.id}
            onClick={() => onChoose(activity.id)}
            onDoubleClick={onEnter}
          >
            <img
              src={`/api/activities/picture?activity=${activity.id}`}
              alt=""
              width={112}
              height={75}
              className={classes.picture}
            />
            {activity.name}
          </button>
        ))}
      </div>
      <p className={classes.count} role="status">
        {found.length === 0
          ? 'Nothing here is called so. Say it otherwise, or take what moves alike.'
          : found.length === list.length
            ? `${list.length} to choose from; arrow keys move`
            : `${found.length} of ${list.length}`}
      </p>
    </section>
  )
}

/** Shots of one's own that others are begun from. */
function Templates() {
  const own = useQuery({
    queryKey: ['shots', 'templates'],
    queryFn: () => answered(client.GET('/api/shots', { params: { query: { templates: true } } })),
  })
  const navigate = useNavigate()
  const begin = useMutation({
    mutationFn: async (id: string) => {
      const { shot } = await answered(client.GET('/api/shots/{id}', { params: { path: { id } } }))
      return answered(client.POST('/api/shots', { body: { ...shot, template: false } }))
    },
    onSuccess: (shot) => void navigate(`/shots/${shot.id}`),
  })
  const failure = own.error ?? begin.error
  if (failure) {
    return (
      <p role="alert" className={classes.refused}>
        {failure.message}
      </p>
    )
  }
  return own.data?.shots.map((shot) => (
    <button
      key={shot.id}
      type="button"
      className={classes.one}
      data-template={shot.title}
      onClick={() => begin.mutate(shot.id)}
    >
      <img
        src={`/api/shots/${shot.id}/picture?width=240&v=${shot.version}`}
        alt=""
        width={112}
        height={75}
        className={classes.picture}
      />
      {shot.title}
      <small>yours</small>
    </button>
  ))
}
