import { Button, SegmentedControl, Select, Tooltip } from '@mantine/core'
import { choices } from '../words/choices'
import { useEffect, useState } from 'react'
import {
  answered,
  asked,
  client,
  Refusal,
  type MarkMap,
  type MatchRow,
  type Priority,
  type Setup,
  type Shot,
  type Wish,
} from '../api/client'
import { Key } from '../commands/Key'
import { withKey } from '../commands/list'
import { useCommands } from '../commands/useCommands'
import { Compare } from './Compare'
import { Explain } from './Explain'
import { MarkField, type Hand } from './MarkField'
import { NearestCard } from './NearestCard'
import { Preview } from './Preview'
import { SetupCard } from './SetupCard'
import { Sheet } from './Sheet'
import { useMatch } from './useMatch'
import { WholeJob } from './WholeJob'
import { WholeShot } from './WholeShot'
import { WishPanel } from './WishPanel'
import cards from './Setups.module.css'
import classes from './Match.module.css'

const PRIORITIES = choices<Priority>({
  balanced: 'Balanced',
  shortest_pulse: 'Shortest pulse',
  lowest_iso: 'Lowest ISO',
  longest_battery: 'Longest battery',
  least_to_carry: 'Least to carry',
  fastest_burst: 'Fastest burst',
})
const MOST_PINNED = 4
type Scope = 'light' | 'shot' | 'job'

type Props = {
  shot: Shot
  saving: string
  onChange: (shot: Shot) => void
  onUndo: () => void
  onClose: () => void
}

/** Which of my units can do this, and what would have to give. */
export function Match({ shot, saving, onChange, onUndo, onClose }: Props) {
  const [priority, setPriority] = useState<Priority>('balanced')
  const [scope, setScope] = useState<Scope>('light')
  const [at, setAt] = useState(0)
  const [mark, setMark] = useState<Hand>()
  const [pinned, setPinned] = useState<MatchRow[]>([])
  const [comparing, setComparing] = useState(false)
  const [explained, setExplained] = useState<Setup>()
  const [trouble, setTrouble] = useState<string>()
  const [done, setDone] = useState<string>()
  const search = useMatch(shot, priority)
  const { answer, map } = search
  const rows = answer?.rows ?? []
  const nearest = answer?.nearest ?? []
  const count = rows.length || nearest.length
  const chosen = Math.min(at, Math.max(count - 1, 0))
  const setup = (rows[chosen] ?? nearest[chosen]?.row)?.setup
  // Another set-up in hand takes the mark along.
  useEffect(() => setMark(undefined), [setup])

  useEffect(() => {
    document.title = `Match · ${shot.title} · Dash Pebble`
  }, [shot.title])
  useEffect(() => {
    document
      .querySelector(`[data-hand][data-setup], [data-hand][data-nearest]`)
      ?.scrollIntoView({ block: 'nearest' })
  }, [chosen])

  const wish = (wish: Wish) => {
    const { wish: _, ...rest } = shot
    onChange(Object.keys(wish).length ? { ...rest, wish } : rest)
  }
  const apply = (setup: Setup, name: string) =>
    void answered(client.POST('/api/match/apply', { body: { shot, setup } })).then(
      (to) => {
        onChange(to)
        setComparing(false)
        setDone(`The shot is set: ${name}.`)
      },
      (error: Error) => setTrouble(error.message),
    )
  const act = () => {
    const row = rows[chosen]
    const near = nearest[chosen]
    if (row) apply(row.setup, row.title)
    else if (near) wish(near.wish)
  }
  const pin = (row: MatchRow) =>
    setPinned((pinned) =>
      pinned.some((one) => same(one, row))
        ? pinned.filter((one) => !same(one, row))
        : [...pinned, row].slice(0, MOST_PINNED),
    )
  const move = (by: number) => () => count > 0 && setAt((chosen + by + count) % count)
  const table = () =>
    void asked('/api/match/table', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ shot, priority }),
    })
      .then(async (response) => save(await response.blob(), 'set-ups.csv'))
      .catch((error: Error) => setTrouble(error.message))

  useCommands({
    to_bench: onClose,
    ...(scope === 'light' && {
      setup_after: move(1),
      setup_before: move(-1),
      set_so: act,
      pin: () => rows[chosen] && pin(rows[chosen]),
      explain: () => rows[chosen] && setExplained(rows[chosen].setup),
    }),
    ...(pinned.length > 1 && { side_by_side: () => setComparing(true) }),
    match_key: () => setScope('light'),
    match_lights: () => setScope('shot'),
    match_job: () => setScope('job'),
    undo: onUndo,
  })

  const field = search.refusal instanceof Refusal ? search.refusal.problem.field : undefined
  return (
    <main className={classes.match}>
      <header className={classes.top}>
        <Tooltip label={withKey('to_bench')}>
          <Button size="compact-sm" radius="xl" variant="default" onClick={onClose}>
            ← Bench
          </Button>
        </Tooltip>
        <h1 className={classes.title}>
          Match <small>{shot.title}</small>
        </h1>
        <SegmentedControl
          size="xs"
          aria-label="For"
          value={scope}
          onChange={(value) => setScope(value as Scope)}
          data={choices<Scope>({
            light: 'The key',
            shot: 'All lights',
            job: 'The whole job',
          })}
        />
        <span className={classes.spacer} />
        <Select
          size="xs"
          aria-label="First of all"
          data={PRIORITIES}
          value={priority}
          allowDeselect={false}
          onChange={(value) => value && setPriority(value as Priority)}
          w={150}
        />
        <Button
          size="compact-sm"
          radius="xl"
          variant="default"
          disabled={pinned.length < 2}
          onClick={() => setComparing(true)}
        >
          Side by side&nbsp;
          <Key of="side_by_side" />
        </Button>
        <Button
          size="compact-sm"
          radius="xl"
          variant="default"
          disabled={count === 0 || scope !== 'light'}
          onClick={table}
        >
          CSV
        </Button>
        <Button
          size="compact-sm"
          radius="xl"
          variant="default"
          disabled={count === 0 || scope !== 'light'}
          onClick={() => window.print()}
        >
          Print
        </Button>
        <Tooltip label={withKey('undo')}>
          <Button size="compact-sm" radius="xl" variant="default" aria-label="Undo" onClick={onUndo}>
            ↶
          </Button>
        </Tooltip>
        <span className={classes.saving} data-saving={saving} role="status">
          {saving}
        </span>
      </header>
      {(done ?? trouble) && (
        <p className={classes.notice} role="status" data-notice={trouble ? 'trouble' : 'done'}>
          {trouble ?? done}{' '}
          {!trouble && (
            <Button size="compact-xs" variant="default" onClick={onClose}>
              See it on the Bench
            </Button>
          )}
          <Button
            size="compact-xs"
            variant="subtle"
            aria-label="Close this notice"
            onClick={() => {
              setDone(undefined)
              setTrouble(undefined)
            }}
          >
            ✕
          </Button>
        </p>
      )}
      {scope === 'shot' && (
        <WholeShot shot={shot} priority={priority} onApply={(setup) => apply(setup, 'all lights')} />
      )}
      {scope === 'job' && <WholeJob />}
      {scope === 'light' && (
        <div className={classes.columns}>
          <WishPanel own={shot.wish ?? {}} asked={search.wish ?? {}} onChange={wish} />
          <section className={classes.middle} aria-label="Units">
            {map && map.trails.length > 0 && (
              <MarkField map={map} hand={within(map, mark, setup)} onHand={setMark} />
            )}
            {map && map.left_out > 0 && (
              <p className={classes.aside}>{map.left_out} more units are searched and not drawn.</p>
            )}
            <Preview shot={shot} setup={setup} />
            {map && map.trails.length === 0 && (
              <p className={classes.none}>
                No unit is taken along. Add one in the Kit, or take one up again that was put away.
              </p>
            )}
          </section>
          <section className={classes.right} aria-label="Set-ups" aria-busy={search.going}>
            <p className={classes.count} role="status" data-testid="count">
              {search.refusal ? (
                <span data-field={field} className={classes.refused}>
                  {search.refusal.message}
                </span>
              ) : search.going ? (
                <>
                  {search.progress?.nearest ? 'Looking for what would have to give' : 'Searching'}
                  {search.progress &&
                    search.progress.of > 0 &&
                    ` · ${search.progress.done} of ${search.progress.of} units`}
                  …{' '}
                  <Button size="compact-xs" variant="default" onClick={search.stop}>
                    Stop
                  </Button>
                </>
              ) : search.stopped || !answer ? (
                'Stopped. Change something to search again.'
              ) : rows.length > 0 ? (
                `${rows.length} set-up${rows.length === 1 ? '' : 's'}, ${answer.ways.toLocaleString('en-GB')} ways to set them`
              ) : nearest.length > 0 ? (
                'Nothing does all of this. Nearest first, with what would have to give:'
              ) : (
                'Nothing does this, and nothing comes within six stops of it.'
              )}
            </p>
            <ul className={cards.list} data-stale={search.going || undefined}>
              {rows.map((row, index) => (
                <SetupCard
                  key={`${row.title}-${row.sync}`}
                  rank={index + 1}
                  row={row}
                  inHand={index === chosen}
                  pinned={pinned.some((one) => same(one, row))}
                  canPin={pinned.length < MOST_PINNED}
                  onHand={() => setAt(index)}
                  onPin={() => pin(row)}
                  onApply={() => apply(row.setup, row.title)}
                  onExplain={() => setExplained(row.setup)}
                />
              ))}
              {nearest.map((near, index) => (
                <NearestCard
                  key={near.gives.map((give) => give.said).join()}
                  rank={index + 1}
                  near={near}
                  inHand={index === chosen}
                  onHand={() => setAt(index)}
                  onGive={() => wish(near.wish)}
                />
              ))}
            </ul>
          </section>
        </div>
      )}
      {answer && <Sheet shot={shot} answer={answer} />}
      {comparing && (
        <Compare
          shot={shot}
          rows={pinned}
          onApply={(row) => apply(row.setup, row.title)}
          onClose={() => setComparing(false)}
        />
      )}
      {explained && <Explain shot={shot} setup={explained} onClose={() => setExplained(undefined)} />}
    </main>
  )
}

const same = (a: MatchRow, b: MatchRow) => JSON.stringify(a.setup) === JSON.stringify(b.setup)

/** The mark in hand, where the map still has it; the one of the set-up in hand otherwise. */
function within(map: MarkMap, hand: Hand | undefined, setup: Setup | undefined): Hand {
  if (hand && map.trails[hand.unit]?.marks[hand.mark]) return hand
  const light = setup?.lights[0]
  const unit = Math.max(
    0,
    map.trails.findIndex((trail) => trail.unit === light?.unit),
  )
  const mark = map.trails[unit]!.marks.findIndex((mark) => mark.power === light?.power)
  return { unit, mark: mark >= 0 ? mark : map.trails[unit]!.marks.length - 1 }
}

function save(blob: Blob, name: string) {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(blob)
  link.download = name
  link.click()
  URL.revokeObjectURL(link.href)
}
