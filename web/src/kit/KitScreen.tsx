import { Button, Tooltip } from '@mantine/core'
import { Key } from '../commands/Key'
import { useQueries, useQuery } from '@tanstack/react-query'
import { useCallback, useEffect, useRef, useState, type DragEvent } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import {
  answered,
  client,
  Refusal,
  type FlashUnit,
  type Item,
  type ItemAnswer,
  type Kind,
} from '../api/client'
import { withKey } from '../commands/list'
import { useCommands } from '../commands/useCommands'
import { Waiting } from '../shell/Waiting'
import { Entry } from './Entry'
import { Notices, type Notice } from './Notices'
import { Shelf } from './Shelf'
import { TakeIn, useTakeIn, wrongRows } from './TakeIn'
import { ThingView } from './ThingView'
import { TraceDialog, type Brought } from './TraceDialog'
import { UnitFacts } from './UnitFacts'
import { UnitView } from './UnitView'
import { itemQuery, readTrace, rehearsed, useChange, useShelf, useThing } from './useKit'
import { KINDS } from './words'
import classes from './KitScreen.module.css'

/** What is being entered, and what it changes; nothing when it is new. */
type Draft = { at: ItemAnswer | undefined; item: Item }

/** The kit: found at the left, drawn in the middle, known and entered at the right. */
export function KitScreen() {
  const { kind: wanted, id: asked = '' } = useParams()
  const kind: Kind = KINDS.find((one) => one.kind === wanted)?.kind ?? 'unit'
  const navigate = useNavigate()
  const shelf = useShelf()
  const items = (shelf.data?.items ?? []).filter((item) => item.what === kind)
  const chosen = items.find((item) => item.id === asked)?.id ?? items.find((item) => !item.retired)?.id ?? ''
  const thing = useThing(chosen)
  const [others, setOthers] = useState<string[]>([])
  const compared = useQueries({ queries: others.map(itemQuery) })
  const [draft, setDraft] = useState<Draft>()
  const [notice, setNotice] = useState<Notice>()
  const [brought, setBrought] = useState<Brought>()
  const [reading, setReading] = useState(false)
  const change = useChange()
  const takeIn = useTakeIn()
  const kept = thing.data
  const word = KINDS.find((one) => one.kind === kind)!.one

  useEffect(() => {
    document.title = `${kept?.thing.item.name ?? 'Kit'} · Dash Pebble`
  }, [kept])
  const entering = useRef(draft)
  useEffect(() => {
    entering.current = draft
  }, [draft])
  // Another thing in hand: what was being entered belongs to the one before, and is kept within reach.
  useEffect(() => {
    const left = entering.current
    if (left && left.item !== left.at?.thing) {
      const name = left.item.item.name
      setNotice({
        text: `The figures entered for ${name} were not kept.`,
        action: { words: 'Go back to them', run: () => setDraft(left) },
      })
    }
    setDraft(undefined)
    setOthers((now) => now.filter((other) => other !== chosen))
  }, [chosen])

  const told = useCallback((error: unknown) => {
    setNotice({ text: error instanceof Error ? error.message : 'That did not work.', rows: wrongRows(error) })
  }, [])
  const start = async () => {
    try {
      const item = await answered(client.GET('/api/kit/start/{kind}', { params: { path: { kind } } }))
      setDraft({ at: undefined, item })
    } catch (error) {
      told(error)
    }
  }
  const entered = () => kept && setDraft({ at: kept, item: kept.thing })
  const copied = () =>
    kept &&
    change.mutate(
      {
        do: 'add',
        item: {
          ...kept.thing,
          item: { ...kept.thing.item, id: '', name: `${kept.thing.item.name}, copy` },
        } as Item,
      },
      { onSuccess: (made) => made && void navigate(`/kit/${kind}/${made.id}`), onError: told },
    )
  const keep = () => {
    if (!draft) return
    const what = draft.at
      ? ({ do: 'put', at: draft.at, item: draft.item } as const)
      : ({ do: 'add', item: draft.item } as const)
    change.mutate(what, {
      onSuccess: (made) => {
        setDraft(undefined)
        setNotice(undefined)
        if (made) void navigate(`/kit/${kind}/${made.id}`)
      },
      onError: (error) => {
        const current = error instanceof Refusal ? error.problem.current_item : undefined
        if (current) {
          setDraft({ ...draft, at: current })
          setNotice({
            text: 'It was changed in another window meanwhile. Keep again to put yours on top; undo leads back to theirs.',
          })
        } else if (!(error instanceof Refusal && error.problem.field)) told(error)
      },
    })
  }
  const step = (way: 'undo' | 'redo' | 'retire' | 'unretire') =>
    kept && change.mutate({ do: way, at: kept }, { onError: (error) => quietAtTheEnd(error, told) })
  const remove = () =>
    kept &&
    change.mutate(
      { do: 'delete', at: kept },
      {
        onSuccess: () => {
          setNotice({
            text: `${kept.thing.item.name} was deleted.`,
            action: { words: 'Bring it back', run: () => change.mutate({ do: 'restore', id: kept.id }) },
          })
          void navigate(`/kit/${kind}`)
        },
        onError: (error) =>
          setNotice({
            text: error.message,
            action:
              error instanceof Refusal && error.problem.used_by?.length
                ? { words: 'Retire it', run: () => step('retire') }
                : undefined,
          }),
      },
    )
  const bring = async (file: Blob, name: string, power: number, means: string) => {
    setReading(true)
    try {
      setBrought({ answer: await readTrace(file), file: name, power, with: means })
      setNotice(undefined)
    } catch (error) {
      told(error)
    } finally {
      setReading(false)
    }
  }
  const rehearse = async (unit: FlashUnit, power: number) => {
    try {
      await bring(await rehearsed(unit, power), 'rehearsed', power, 'simulated recorder')
    } catch (error) {
      told(error)
    }
  }
  const file = (file: File | 'sample') =>
    takeIn.mutate(file, {
      onSuccess: ({ added, changed, same }) =>
        setNotice({ text: `Taken in: ${added} new, ${changed} changed, ${same} as they were.` }),
      onError: told,
    })
  const dropped = (event: DragEvent) => {
    event.preventDefault()
    const given = event.dataTransfer.files[0]
    if (!given) return
    if (/\.json$/i.test(given.name)) file(given)
    else if (kind === 'unit' && kept) void bring(given, given.name, 0.25, '')
  }

  // While figures are entered, no key may take them away; not even the browser's own undo.
  const free = (action: () => void) => () => {
    if (!draft) action()
  }
  useCommands({
    find_thing: () => document.getElementById('kit-find')?.focus(),
    change_thing: free(entered),
    new_thing: free(() => void start()),
    undo: free(() => step('undo')),
    redo: free(() => step('redo')),
  })

  if (!shelf.data) return <Waiting what="the kit" error={shelf.error} onRetry={() => void shelf.refetch()} />
  const hand = draft?.item ?? kept?.thing
  const problem = change.error instanceof Refusal && draft ? change.error.problem : undefined
  const entry = draft && (
    <Entry
      draft={draft.item}
      problem={problem}
      busy={change.isPending}
      onChange={(item) => setDraft({ ...draft, item })}
      onSave={keep}
      onDrop={() => {
        setDraft(undefined)
        change.reset()
      }}
    />
  )
  const units =
    hand?.what === 'unit'
      ? [hand.item, ...compared.flatMap(({ data }) => (data?.thing.what === 'unit' ? [data.thing.item] : []))]
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
        <Button size="compact-sm" radius="xl" onClick={() => void start()}>
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
            chosen={chosen}
            lanes={kind === 'unit' ? [chosen, ...others] : undefined}
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
                  <Actions kept={kept} onChange={entered} onCopy={copied} onStep={step} onDelete={remove} />
                )}
              </header>
            )}
            {hand?.what === 'unit' && (
              <UnitView units={units} entry={entry}>
                {(lane, powerNow) => (
                  <UnitFacts
                    unit={lane.unit}
                    sheet={lane.sheet}
                    reading={reading}
                    onTrace={(given) => void bring(given, given.name, powerNow(), '')}
                    onRehearse={() => void rehearse(lane.unit, powerNow())}
                    onForget={(index) => {
                      if (!kept || kept.thing.what !== 'unit') return
                      const recordings = kept.thing.item.recordings?.filter((_, k) => k !== index)
                      const item: Item = { ...kept.thing, item: { ...kept.thing.item, recordings } }
                      change.mutate({ do: 'put', at: kept, item }, { onError: told })
                    }}
                  />
                )}
              </UnitView>
            )}
            {hand && hand.what !== 'unit' && (
              <ThingView thing={hand}>{entry ?? <Uses id={chosen} onEnter={entered} />}</ThingView>
            )}
          </div>
        </div>
      )}
      {brought && kept?.thing.what === 'unit' && (
        <Filing
          unit={kept.thing.item}
          brought={brought}
          busy={change.isPending}
          onClose={() => setBrought(undefined)}
          onFile={(recording) => {
            if (kept.thing.what !== 'unit') return
            const recordings = [...(kept.thing.item.recordings ?? []), recording]
            const item: Item = { ...kept.thing, item: { ...kept.thing.item, recordings } }
            change.mutate(
              { do: 'put', at: kept, item },
              { onSuccess: () => setBrought(undefined), onError: told },
            )
          }}
        />
      )}
    </main>
  )
}

/** At the end of the chain of changes there is nothing to do and nothing to say. */
function quietAtTheEnd(error: unknown, told: (error: unknown) => void) {
  if (!(error instanceof Refusal && error.problem.type.endsWith('no-step'))) told(error)
}

type ActionsProps = {
  kept: ItemAnswer
  onChange: () => void
  onCopy: () => void
  onStep: (way: 'undo' | 'redo' | 'retire' | 'unretire') => void
  onDelete: () => void
}

function Actions({ kept, onChange, onCopy, onStep, onDelete }: ActionsProps) {
  const small = { size: 'compact-sm', radius: 'xl', variant: 'default' } as const
  return (
    <div className={classes.actions}>
      <Button {...small} onClick={onChange}>
        Change&nbsp;
        <Key of="change_thing" />
      </Button>
      <Button {...small} onClick={onCopy}>
        Copy
      </Button>
      <Button {...small} onClick={() => onStep(kept.retired ? 'unretire' : 'retire')}>
        {kept.retired ? 'Take along again' : 'Retire'}
      </Button>
      <Button {...small} onClick={onDelete}>
        Delete
      </Button>
      <Tooltip label={withKey('undo')}>
        <Button {...small} aria-label="Undo" disabled={!kept.can_undo} onClick={() => onStep('undo')}>
          ↶
        </Button>
      </Tooltip>
      <Tooltip label={withKey('redo')}>
        <Button {...small} aria-label="Redo" disabled={!kept.can_redo} onClick={() => onStep('redo')}>
          ↷
        </Button>
      </Tooltip>
    </div>
  )
}

/** Who carries a thing. */
function Uses({ id, onEnter }: { id: string; onEnter: () => void }) {
  const uses = useQuery({
    queryKey: ['kit', 'uses', id],
    queryFn: () => answered(client.GET('/api/kit/items/{id}/uses', { params: { path: { id } } })),
  }).data
  return (
    <div className={classes.uses}>
      <h3 className={classes.title}>Carried by</h3>
      {uses?.length === 0 && <p>Nothing yet. It can be deleted.</p>}
      <ul>
        {uses?.map((use) => (
          <li key={use.id}>
            <Link to={use.is_shot ? `/shots/${use.id}` : `/kit/unit/${use.id}`}>{use.name}</Link>
          </li>
        ))}
      </ul>
      <Button size="compact-sm" radius="xl" variant="default" onClick={onEnter}>
        Change its figures
      </Button>
    </div>
  )
}

type FilingProps = {
  unit: FlashUnit
  brought: Brought
  busy: boolean
  onFile: (recording: NonNullable<FlashUnit['recordings']>[number]) => void
  onClose: () => void
}

/** The recording beside what the unit was thought to do, as it stands now. */
function Filing(props: FilingProps) {
  const sheet = useQuery({
    queryKey: ['sheet', 1, props.unit],
    queryFn: () =>
      answered(
        client.POST('/api/units/sheet', { params: { query: { frames_per_second: 1 } }, body: props.unit }),
      ),
  }).data
  return sheet ? <TraceDialog {...props} sheet={sheet} /> : null
}
