import { Button, Checkbox, CloseButton, Menu, Select, Text, TextInput } from '@mantine/core'
import { useDebouncedValue } from '@mantine/hooks'
import { Key } from '../commands/Key'
import { keepPreviousData, useInfiniteQuery, useMutation, useQueryClient } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { answered, asked, client, type ShotCard } from '../api/client'
import { FilePick } from '../controls/FilePick'
import { choices } from '../words/choices'
import { IntentMark } from '../marks/IntentMark'
import { SeverityMark } from '../marks/SeverityMark'
import { useCommands } from '../commands/useCommands'
import { useGoes } from '../shell/useGoes'
import { Waiting } from '../shell/Waiting'
import classes from './ShotsScreen.module.css'

type Sort = 'made' | 'changed' | 'title' | 'place'
const SORTS = choices<Sort>({
  made: 'as they were made',
  changed: 'last worked on first',
  title: 'by title',
  place: 'by place',
})

/** Shots fetched at a time. */
const PAGE = 24

/** All shots, each with its simulated frame and what is open on it. */
export function ShotsScreen() {
  const queries = useQueryClient()
  const navigate = useNavigate()
  const [removed, setRemoved] = useState<ShotCard>()
  const [wanted, setWanted] = useState('')
  const [sort, setSort] = useState<Sort>('made')
  const [find] = useDebouncedValue(wanted.trim(), 120)
  const list = useInfiniteQuery({
    queryKey: ['shots', 'cards', find, sort],
    placeholderData: keepPreviousData,
    initialPageParam: 0,
    queryFn: ({ pageParam: skip, signal }) =>
      answered(client.GET('/api/shots', { params: { query: { skip, most: PAGE, find, sort } }, signal })),
    getNextPageParam: (last, _, skip) => (skip + PAGE < last.count ? skip + PAGE : undefined),
  })
  const refresh = () => queries.invalidateQueries({ queryKey: ['shots'] })
  const fresh = useMutation({
    mutationFn: async (from: string) => {
      const source = (await answered(client.GET('/api/shots/{id}', { params: { path: { id: from } } }))).shot
      const body = { ...source, title: `${source.title}, again`, template: false }
      return answered(client.POST('/api/shots', { body }))
    },
    onSuccess: (shot) => void navigate(`/shots/${shot.id}`),
  })
  const remove = useMutation({
    mutationFn: (card: ShotCard) =>
      answered(
        client.DELETE('/api/shots/{id}', {
          params: { path: { id: card.id }, header: { 'If-Match': `"${card.version}"` } },
        }),
      ),
    onSuccess: (_, card) => {
      setRemoved(card)
      return refresh()
    },
  })
  const restore = useMutation({
    mutationFn: (id: string) =>
      answered(client.POST('/api/shots/{id}/restore', { params: { path: { id } } })),
    onSuccess: () => {
      setRemoved(undefined)
      return refresh()
    },
  })

  const takeIn = useMutation({
    mutationFn: async (file: File) => {
      const response = await asked('/api/shots/import', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: file,
      })
      return ((await response.json()) as { ids: string[] }).ids.length
    },
    onSuccess: refresh,
  })
  const rename = useMutation({
    mutationFn: async ({ card, ...change }: { card: ShotCard; title?: string; template?: boolean }) => {
      const path = { id: card.id }
      const kept = await answered(client.GET('/api/shots/{id}', { params: { path } }))
      return answered(
        client.PUT('/api/shots/{id}', {
          params: { path, header: { 'If-Match': `"${kept.version}"` } },
          body: { ...kept.shot, ...change },
        }),
      )
    },
    onSuccess: refresh,
  })

  useEffect(() => {
    document.title = 'Shots · Dash Pebble'
  }, [])
  useGoes(takeIn.data !== undefined && takeIn.submittedAt, takeIn.reset)
  const [chosen, setChosen] = useState<string[]>()
  useCommands({ new_shot: () => void navigate('/new') })

  if (!list.data) return <Waiting what="your shots" error={list.error} onRetry={() => void list.refetch()} />
  const cards = list.data.pages.flatMap((page) => page.shots)
  const unreadable = list.data.pages.flatMap((page) => page.unreadable)
  const failure = fresh.error ?? remove.error ?? restore.error ?? takeIn.error ?? rename.error
  return (
    <main className={classes.screen}>
      <header className={classes.head}>
        <h1>Shots</h1>
        <TextInput
          size="sm"
          aria-label="Find a shot"
          placeholder="Find by title, place or part"
          className={classes.find}
          value={wanted}
          onChange={(event) => setWanted(event.currentTarget.value)}
        />
        <Select
          size="sm"
          aria-label="Sorted"
          w={190}
          allowDeselect={false}
          comboboxProps={{ keepMounted: false }}
          data={SORTS}
          value={sort}
          onChange={(to) => to && setSort(to as Sort)}
        />
        <span className={classes.spacer} />
        <FilePick accept=".json" loading={takeIn.isPending} onFile={(file) => takeIn.mutate(file)}>
          Take in a file
        </FilePick>
        <GiveOut chosen={chosen} onChoose={setChosen} />
        <Button radius="xl" component={Link} to="/new">
          New shot&nbsp;
          <Key of="new_shot" />
        </Button>
      </header>
      {failure && (
        <p className={classes.notice} role="alert">
          {failure.message}
        </p>
      )}
      {unreadable.map((sentence) => (
        <p key={sentence} className={classes.notice} role="alert">
          {sentence}. It is still in the file.
        </p>
      ))}
      {removed && (
        <p className={classes.notice} role="status">
          {removed.title} was taken off the list.
          <Button size="compact-sm" variant="default" radius="xl" onClick={() => restore.mutate(removed.id)}>
            Bring it back
          </Button>
        </p>
      )}
      {takeIn.data !== undefined && (
        <p className={classes.notice} role="status">
          {takeIn.data === 1 ? '1 shot was' : `${takeIn.data} shots were`} taken in, at the end of the list.
          <CloseButton size="sm" aria-label="Close this notice" onClick={takeIn.reset} />
        </p>
      )}
      {cards.length === 0 && find !== '' && (
        <Text c="dimmed">No shot has these words in its title, its place or its parts.</Text>
      )}
      {cards.length === 0 && find === '' && (
        <Text c="dimmed">
          No shots yet. Start one: name what moves and what must be still, and see the frame before it is
          taken.
        </Text>
      )}
      <ul className={classes.grid}>
        {cards.map((card) => (
          <Card
            key={card.id}
            card={card}
            chosen={chosen?.includes(card.id)}
            onChosen={(is) =>
              setChosen((now = []) => (is ? [...now, card.id] : now.filter((id) => id !== card.id)))
            }
            onCopy={() => fresh.mutate(card.id)}
            onRemove={() => remove.mutate(card)}
            onRename={(title) => rename.mutate({ card, title })}
            onTemplate={(template) => rename.mutate({ card, template })}
          />
        ))}
      </ul>
      {list.hasNextPage && (
        <More
          count={list.data.pages[0]!.count - cards.length}
          onSeen={() => void (list.isFetching || list.fetchNextPage())}
        />
      )}
    </main>
  )
}

/** What follows is fetched when the end of the list comes into sight. */
function More({ count, onSeen }: { count: number; onSeen: () => void }) {
  const end = useRef<HTMLButtonElement>(null)
  useEffect(() => {
    const watch = new IntersectionObserver(([seen]) => seen?.isIntersecting && onSeen(), {
      rootMargin: '600px',
    })
    if (end.current) watch.observe(end.current)
    return () => watch.disconnect()
  }, [onSeen])
  return (
    <Button ref={end} variant="default" radius="xl" mt="md" onClick={onSeen}>
      {count} more
    </Button>
  )
}

/** All shots as one file, or those that are chosen. */
function GiveOut({
  chosen,
  onChoose,
}: {
  chosen: string[] | undefined
  onChoose: (chosen: string[] | undefined) => void
}) {
  const look = { radius: 'xl', size: 'compact-sm', variant: 'default' } as const
  if (!chosen)
    return (
      <>
        <Button component="a" href="/api/shots.json" download {...look}>
          Give all out
        </Button>
        <Button data-do="choose" {...look} onClick={() => onChoose([])}>
          Choose some
        </Button>
      </>
    )
  return (
    <>
      {chosen.length > 0 ? (
        <Button component="a" href={`/api/shots.json?ids=${chosen.join(',')}`} download {...look}>
          Give {chosen.length} out
        </Button>
      ) : (
        <Text size="sm" c="dimmed">
          Tick what is given out
        </Text>
      )}
      <Button {...look} onClick={() => onChoose(undefined)}>
        Done
      </Button>
    </>
  )
}

type CardProps = {
  card: ShotCard
  /** Whether it is among those that are given out; nothing while none are chosen. */
  chosen: boolean | undefined
  onChosen: (is: boolean) => void
  onCopy: () => void
  onRemove: () => void
  onRename: (title: string) => void
  onTemplate: (is: boolean) => void
}

function Card({ card, chosen, onChosen, onCopy, onRemove, onRename, onTemplate }: CardProps) {
  const [naming, setNaming] = useState(false)
  return (
    <li className={classes.card} data-shot={card.title} data-chosen={chosen || undefined}>
      {chosen !== undefined && (
        <Checkbox
          className={classes.choose}
          aria-label={`Give out ${card.title}`}
          checked={chosen}
          onChange={(event) => onChosen(event.currentTarget.checked)}
        />
      )}
      <Link to={`/shots/${card.id}`} className={classes.open}>
        <img
          className={classes.frame}
          src={`/api/shots/${card.id}/picture?width=720&v=${card.version}`}
          alt={`Simulated frame of ${card.title}`}
          width={720}
          height={480}
          loading="lazy"
        />
        <h2 className={classes.title}>{card.title}</h2>
      </Link>
      {naming && (
        <TextInput
          size="xs"
          aria-label="New title"
          data-autofocus
          autoFocus
          defaultValue={card.title}
          onKeyDown={(event) => {
            if (event.key === 'Escape') setNaming(false)
            if (event.key !== 'Enter') return
            onRename(event.currentTarget.value)
            setNaming(false)
          }}
        />
      )}
      <p className={classes.place}>
        {card.template && 'Template · '}
        {card.place} <span className="mono">{card.exposure}</span>
      </p>
      <p className={classes.parts}>
        {card.parts.map((part) => (
          <span key={part.name}>
            <IntentMark intent={part.intent} size={13} /> {part.name}
          </span>
        ))}
      </p>
      <p className={classes.open_findings}>
        {card.trouble > 0 && (
          <span>
            <SeverityMark severity="trouble" /> {card.trouble} trouble
          </span>
        )}
        {card.watch > 0 && (
          <span>
            <SeverityMark severity="watch" /> {card.watch} to watch
          </span>
        )}
        {card.trouble + card.watch === 0 && (
          <span>
            <SeverityMark severity="fine" /> all is well
          </span>
        )}
      </p>
      <Menu position="bottom-end" returnFocus={false}>
        <Menu.Target>
          <Button
            size="compact-sm"
            radius="xl"
            variant="default"
            className={classes.more}
            aria-label={`More for ${card.title}`}
          >
            ⋯
          </Button>
        </Menu.Target>
        <Menu.Dropdown>
          <Menu.Item onClick={onCopy}>Start a new shot from this</Menu.Item>
          <Menu.Item data-do="template" onClick={() => onTemplate(!card.template)}>
            {card.template ? 'No template any more' : 'Begin others from it: a template'}
          </Menu.Item>
          <Menu.Item data-do="rename" onClick={() => setNaming(true)}>
            Rename it
          </Menu.Item>
          <Menu.Item component="a" href={`/api/shots/${card.id}/file`} download>
            Give it out as a file
          </Menu.Item>
          <Menu.Item onClick={onRemove}>Take off the list</Menu.Item>
        </Menu.Dropdown>
      </Menu>
    </li>
  )
}
