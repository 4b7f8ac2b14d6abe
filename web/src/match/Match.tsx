import { useEffect, useState } from 'react'
import {
  answered,
  asked,
  client,
  type MarkMap,
  type Priority,
  type Setup,
  type Shot,
  type Wish,
} from '../api/client'
import { useCommands } from '../commands/useCommands'
import { Compare } from './Compare'
import { download } from '../words/download'
import { Explain } from './Explain'
import { MarkField, type Hand } from './MarkField'
import { MatchHead, type Scope } from './MatchHead'
import { MatchNotice } from './MatchNotice'
import { NearestCard } from './NearestCard'
import { Preview } from './Preview'
import { SearchState } from './SearchState'
import { SetupCard } from './SetupCard'
import { Sheet } from './Sheet'
import { useMatch } from './useMatch'
import { usePinned } from './usePinned'
import { WholeJob } from './WholeJob'
import { WholeShot } from './WholeShot'
import { WishPanel } from './WishPanel'
import cards from './Setups.module.css'
import classes from './Match.module.css'

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
  const { pinned, has, pin, full } = usePinned()
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
  const move = (by: number) => () => count > 0 && setAt((chosen + by + count) % count)
  const table = () =>
    void asked('/api/match/table', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ shot, priority }),
    })
      .then(async (response) => download(await response.blob(), 'set-ups.csv'))
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

  return (
    <main className={classes.match}>
      <MatchHead
        shot={shot}
        saving={saving}
        scope={scope}
        onScope={setScope}
        priority={priority}
        onPriority={setPriority}
        onCompare={pinned.length < 2 ? undefined : () => setComparing(true)}
        onTable={count === 0 || scope !== 'light' ? undefined : table}
        onUndo={onUndo}
        onClose={onClose}
      />
      <MatchNotice
        done={done}
        trouble={trouble}
        onBench={onClose}
        onClose={() => {
          setDone(undefined)
          setTrouble(undefined)
        }}
      />
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
            <SearchState search={search} />
            <ul className={cards.list} data-stale={search.going || undefined}>
              {rows.map((row, index) => (
                <SetupCard
                  key={`${row.title}-${row.sync}`}
                  rank={index + 1}
                  row={row}
                  inHand={index === chosen}
                  pinned={has(row)}
                  canPin={!full}
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
