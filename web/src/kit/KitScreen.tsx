import { Button } from '@mantine/core'
import { useQueries } from '@tanstack/react-query'
import { useEffect, useState, type DragEvent } from 'react'
import { Link, useParams } from 'react-router'
import { Refusal, type FlashUnit, type Kind } from '../api/client'
import { Key } from '../commands/Key'
import { useCommands } from '../commands/useCommands'
import { Waiting } from '../shell/Waiting'
import { Actions } from './Actions'
import { AskInterval } from './AskInterval'
import { Entry } from './Entry'
import { Filing } from './Filing'
import { Notices } from './Notices'
import { Shelf } from './Shelf'
import { TakeIn, useTakeIn } from './TakeIn'
import { ThingView } from './ThingView'
import { UnitFacts } from './UnitFacts'
import { UnitView } from './UnitView'
import { Uses } from './Uses'
import { useInHand } from './useInHand'
import { itemQuery, useShelf, useThing } from './useKit'
import { usePasted } from './usePasted'
import { useRecordings } from './useRecordings'
import { KINDS } from './words'
import classes from './KitScreen.module.css'

/** A unit that is being entered has curves before it has a name. */
const inTheMaking = (unit: FlashUnit): FlashUnit =>
  unit.name && unit.id ? unit : { ...unit, name: unit.name || 'This unit', id: unit.id || 'new' }

/** The kit: found at the left, drawn in the middle, known and entered at the right. */
export function KitScreen() {
  const { kind: wanted, id: asked = '' } = useParams()
  const kind: Kind = KINDS.find((one) => one.kind === wanted)?.kind ?? 'unit'
  const shelf = useShelf()
  const items = (shelf.data?.items ?? []).filter((item) => item.what === kind)
  const chosen = items.find((item) => item.id === asked)?.id ?? items.find((item) => !item.retired)?.id ?? ''
  const thing = useThing(chosen)
  const [others, setOthers] = useState<string[]>([])
  const compared = useQueries({ queries: others.map(itemQuery) })
  const takeIn = useTakeIn()
  const kept = thing.data
  const word = KINDS.find((one) => one.kind === kind)!.one
  const inHand = useInHand(kind, chosen, kept)
  const { draft, setDraft, notice, setNotice, told, change } = inHand
  const recordings = useRecordings({ kept, change, told, onRead: () => setNotice(undefined) })

  useEffect(() => {
    document.title = `${kept?.thing.item.name ?? 'Kit'} · Dash Pebble`
  }, [kept])
  // What comes in hand is not compared with itself.
  useEffect(() => setOthers((now) => now.filter((other) => other !== chosen)), [chosen])

  const file = (file: File | 'sample') =>
    takeIn.mutate(file, {
      onSuccess: ({ added, changed, same }) =>
        setNotice({ text: `Taken in: ${added} new, ${changed} changed, ${same} as they were.` }),
      onError: told,
    })
  usePasted((table) => {
    if (!draft) return file(table)
    setNotice({ text: 'Keep these figures or leave them first: the table was not taken in.' })
  })
  const dropped = (event: DragEvent) => {
    event.preventDefault()
    const given = event.dataTransfer.files[0]
    if (!given) return
    if (/\.json$/i.test(given.name)) file(given)
    else if (kind === 'unit' && kept) void recordings.bring(given, given.name, 0.25, '')
  }

  // While figures are entered, no key may take them away; not even the browser's own undo.
  const free = (action: () => void) => () => {
    if (!draft) action()
  }
  useCommands({
    find_thing: () => document.getElementById('kit-find')?.focus(),
    change_thing: free(inHand.entered),
    new_thing: free(inHand.start),
    undo: free(() => inHand.step('undo')),
    redo: free(() => inHand.step('redo')),
  })

  if (!shelf.data) return <Waiting what="the kit" error={shelf.error} onRetry={() => void shelf.refetch()} />
  const hand = draft?.item ?? kept?.thing
  const problem = change.error instanceof Refusal && draft ? change.error.problem : undefined
  const entry = draft && (
    <Entry
      draft={draft.item}
      isNew={!draft.at}
      problem={problem}
      busy={change.isPending}
      onChange={(item) => setDraft({ ...draft, item })}
      onSave={inHand.keep}
      onDrop={inHand.drop}
    />
  )
  const units =
    hand?.what === 'unit'
      ? [
          inTheMaking(hand.item),
          ...compared.flatMap(({ data }) => (data?.thing.what === 'unit' ? [data.thing.item] : [])),
        ]
      : []
  return (
    <main className={classes.screen} onDragOver={(event) => event.preventDefault()} onDrop={dropped}>
      <header className={classes.top}>
        <h1 className={classes.title}>Kit</h1>
        <nav className={classes.kinds} aria-label="Kinds">
          {KINDS.map((one) => (
            <Link
              key={one.kind}
              to={`/kit/${one.kind}`}
              aria-current={one.kind === kind ? 'page' : undefined}
            >
              {one.plural}
              <small>
                {shelf.data.items.filter((item) => item.what === one.kind && !item.retired).length}
              </small>
            </Link>
          ))}
        </nav>
        <span className={classes.spacer} />
        <Button size="compact-sm" radius="xl" onClick={inHand.start}>
          New {word}&nbsp;
          <Key of="new_thing" />
        </Button>
        <TakeIn busy={takeIn.isPending} onFile={file} />
      </header>
      <Notices notice={notice} unreadable={shelf.data.unreadable} onClose={() => setNotice(undefined)} />
      {items.length === 0 && !draft ? (
        <div className={classes.empty}>
          <p>
            Nothing of this kind yet. Enter your own, take in a file, or look around with an invented kit of
            units, cameras and modifiers.
          </p>
          <Button onClick={() => file('sample')} loading={takeIn.isPending}>
            Take in the invented kit
          </Button>
        </div>
      ) : (
        <div className={classes.columns}>
          <Shelf
            items={items}
            chosen={draft && !draft.at ? '' : chosen}
            lanes={kind === 'unit' && (!draft || draft.at) ? [chosen, ...others] : undefined}
            onCompare={(id) =>
              setOthers((now) => (now.includes(id) ? now.filter((other) => other !== id) : [...now, id]))
            }
          />
          <div className={classes.hand}>
            {hand && (
              <header className={classes.name}>
                <h2 className={classes.title}>{hand.item.name || 'Without a name'}</h2>
                <span className={classes.line}>
                  {draft ? (draft.at ? 'being changed' : 'new') : kept?.line}
                </span>
                {!draft && kept && (
                  <Actions
                    kept={kept}
                    onChange={inHand.entered}
                    onCopy={inHand.copied}
                    onStep={inHand.step}
                    onDelete={inHand.remove}
                  />
                )}
              </header>
            )}
            {hand?.what === 'unit' && (
              <UnitView units={units} entry={entry}>
                {(lane, powerNow) => (
                  <UnitFacts
                    unit={lane.unit}
                    sheet={lane.sheet}
                    reading={recordings.reading}
                    onTrace={(given) => void recordings.bring(given, given.name, powerNow(), '')}
                    onRehearse={() => void recordings.rehearse(lane.unit, powerNow())}
                    onForget={recordings.forget}
                    onCount={recordings.count}
                  />
                )}
              </UnitView>
            )}
            {hand && hand.what !== 'unit' && (
              <ThingView thing={hand}>{entry ?? <Uses id={chosen} onEnter={inHand.entered} />}</ThingView>
            )}
          </div>
        </div>
      )}
      {recordings.counted && (
        <AskInterval counted={recordings.counted} busy={recordings.reading} onClose={recordings.leave} />
      )}
      {recordings.brought && kept?.thing.what === 'unit' && (
        <Filing
          unit={kept.thing.item}
          brought={recordings.brought}
          busy={change.isPending}
          onClose={recordings.leave}
          onFile={recordings.filed}
        />
      )}
    </main>
  )
}
