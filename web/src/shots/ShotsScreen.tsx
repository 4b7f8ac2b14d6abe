import { Button, Menu, Text } from '@mantine/core'
import { Key } from '../commands/Key'
import { useInfiniteQuery, useMutation, useQueryClient } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { answered, client, type ShotCard } from '../api/client'
import { IntentMark } from '../marks/IntentMark'
import { SeverityMark } from '../marks/SeverityMark'
import { useCommands } from '../commands/useCommands'
import { Waiting } from '../shell/Waiting'
import classes from './ShotsScreen.module.css'

/** Shots fetched at a time. */
const PAGE = 24

/** All shots, each with its simulated frame and what is open on it. */
export function ShotsScreen() {
  const queries = useQueryClient()
  const navigate = useNavigate()
  const [removed, setRemoved] = useState<ShotCard>()
  const list = useInfiniteQuery({
    queryKey: ['shots', 'cards'],
    initialPageParam: 0,
    queryFn: ({ pageParam: skip, signal }) =>
      answered(client.GET('/api/shots', { params: { query: { skip, most: PAGE } }, signal })),
    getNextPageParam: (last, _, skip) => (skip + PAGE < last.count ? skip + PAGE : undefined),
  })
  const refresh = () => queries.invalidateQueries({ queryKey: ['shots'] })
  const fresh = useMutation({
    mutationFn: async (from?: string) => {
      const source = from
        ? (await answered(client.GET('/api/shots/{id}', { params: { path: { id: from } } }))).shot
        : await answered(client.GET('/api/blank'))
      const title = from ? `${source.title}, again` : source.title
      return answered(client.POST('/api/shots', { body: { ...source, title } }))
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

  useEffect(() => {
    document.title = 'Shots · Dash Pebble'
  }, [])
  useCommands({ new_shot: () => fresh.mutate(undefined) })

  if (!list.data) return <Waiting what="your shots" error={list.error} onRetry={() => void list.refetch()} />
  const cards = list.data.pages.flatMap((page) => page.shots)
  const unreadable = list.data.pages.flatMap((page) => page.unreadable)
  const failure = fresh.error ?? remove.error ?? restore.error
  return (
    <main className={classes.screen}>
      <header className={classes.head}>
        <h1>Shots</h1>
        <Button radius="xl" loading={fresh.isPending} onClick={() => fresh.mutate(undefined)}>
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
      {cards.length === 0 && (
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
            onCopy={() => fresh.mutate(card.id)}
            onRemove={() => remove.mutate(card)}
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

function Card({ card, onCopy, onRemove }: { card: ShotCard; onCopy: () => void; onRemove: () => void }) {
  return (
    <li className={classes.card} data-shot={card.title}>
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
      <p className={classes.place}>
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
      <Menu position="bottom-end">
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
          <Menu.Item onClick={onRemove}>Take off the list</Menu.Item>
        </Menu.Dropdown>
      </Menu>
    </li>
  )
}
