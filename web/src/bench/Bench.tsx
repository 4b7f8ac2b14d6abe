import { CloseButton } from '@mantine/core'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { lazy, Suspense, useCallback, useEffect, useMemo, useRef, useState, type ComponentType } from 'react'
import { useParams, useSearchParams } from 'react-router'
import { answered, client, WHOLE, type Remedy, type Shot, type ShotAnswer } from '../api/client'
import { COMMANDS } from '../commands/list'
import { useCommands, type Handlers } from '../commands/useCommands'
import { Waiting } from '../shell/Waiting'
import { Conflict } from './Conflict'
import { Controls, STRIPS } from './Controls'
import { Findings } from './Findings'
import { Frame } from './Frame'
import { Ladder } from './Ladder'
import { withLight, withParts } from './lights/lights'
import { Moment } from './Moment'
import { Doors } from './Doors'
import { Names } from './Names'
import { PartChips } from './PartChips'
import { applied } from '../api/applied'
import { withValue } from '../api/pointer'
import { SAVING_WORDS } from './now'
import { useGoes } from '../shell/useGoes'
import { useSteady } from '../shell/useSteady'
import { useBench } from './useBench'
import { Bay } from './Bay'
import { Cautions } from './Cautions'
import { useLanes } from './movement/useLanes'
import { frameShape, partAt, useStaged, withPersonAt, type Spot } from './stage/staged'
import classes from './Bench.module.css'

// Fetched when they are first opened.
const Drag = lazy(() => import('./Drag').then(({ Drag }) => ({ default: Drag })))
const Groups = lazy(() => import('./Groups').then(({ Groups }) => ({ default: Groups })))
const StageSheet = lazy(() =>
  import('./stage/StageSheet').then(({ StageSheet }) => ({ default: StageSheet })),
)
const MovementSheet = lazy(() =>
  import('./movement/MovementSheet').then(({ MovementSheet }) => ({ default: MovementSheet })),
)
const Versions = lazy(() => import('./Versions').then(({ Versions }) => ({ default: Versions })))

/** What a screen that takes the place of the Bench is given of it. */
export type InPlaceOfTheBench = {
  shot: Shot
  saving: string
  onChange: (shot: Shot) => void
  onUndo: () => void
  onClose: () => void
}
type Props = { match: ComponentType<InPlaceOfTheBench>; floor: ComponentType<InPlaceOfTheBench> }

/** What stands over the Bench. */
type Over = 'versions' | 'drag' | 'groups' | 'stage' | 'movement'

/** One shot: frame, moment, ladder, findings, controls. */
export function BenchScreen({ match, floor }: Props) {
  const { id = '' } = useParams()
  const query = useQuery({
    queryKey: ['shot', id],
    queryFn: () => answered(client.GET('/api/shots/{id}', { params: { path: { id } } })),
    gcTime: 0,
    // The kit may have changed meanwhile, and the shot shows its figures of today.
    staleTime: 0,
    refetchOnWindowFocus: false,
  })
  if (!query.data) return <Waiting what="the shot" error={query.error} onRetry={() => void query.refetch()} />
  return <Bench key={id} initial={query.data} match={match} floor={floor} />
}

function Bench({ initial, match: Match, floor: Floor }: Props & { initial: ShotAnswer }) {
  const [place, setPlace] = useSearchParams()
  const InPlace = place.has('match') ? Match : place.has('floor') ? Floor : undefined
  const bench = useBench(initial, !InPlace)
  const { shot, kept, answer, refusal, saving, view, held, change, turn, look, step } = bench
  const [comparing, setComparing] = useState(false)
  const [moved, setMoved] = useState(initial.moved)
  useGoes(moved.length > 0 && moved, () => setMoved([]))
  const [over, setOver] = useState<Over>()
  const [chosen, setChosen] = useState(0)
  const [who, setWho] = useState(0)
  const [pressed, setPressed] = useState<number>()
  const [lookedAt, setLookedAt] = useState<number>()
  const lanes = useLanes(shot, lookedAt, over === 'movement')
  const [pressedAt, setPressedAt] = useState<Spot>()
  const inLoupe = pressedAt !== undefined && view.crop.size < 1
  const staged = useStaged(shot, over === 'stage' || inLoupe)
  // A light may go by undo while it is in hand.
  const light = Math.min(chosen, shot.lights.length - 1)
  const solo = view.solo !== undefined && view.solo < shot.lights.length ? view.solo : undefined
  const queries = useQueryClient()

  useEffect(() => {
    document.title = `${shot.title} · Dash Pebble`
  }, [shot.title])
  // The list shows what was saved here.
  useEffect(() => () => void queries.invalidateQueries({ queryKey: ['shots'] }), [queries])

  const current = useRef(shot)
  useEffect(() => {
    current.current = shot
  })
  const shotNow = useCallback(() => current.current, [])
  const apply = useCallback((remedy: Remedy) => change((shot) => applied(shot, remedy.changes)), [change])
  const aim = useCallback(
    (pointer: string, stops: number | undefined) => change((shot) => withValue(shot, pointer, stops)),
    [change],
  )
  const divide = useCallback((parts: Shot['parts']) => change((shot) => withParts(shot, parts)), [change])
  const put = useCallback(
    (given: Pick<Partial<Shot>, 'title' | 'place' | 'around' | 'acknowledged'>) =>
      change((shot) => ({ ...shot, ...given })),
    [change],
  )
  const { around, acknowledged } = shot
  // What is found is drawn again when it is found, not when something is turned.
  const cautions = useMemo(
    () => <Cautions around={around} acknowledged={acknowledged} cautions={answer?.cautions} onChange={put} />,
    [around, acknowledged, answer?.cautions, put],
  )
  const openInTime = useCallback(() => setOver('movement'), [])
  const next = (by: number) => () => setChosen((light + by + shot.lights.length) % shot.lights.length)
  const focus = (id: string) => () => document.getElementById(id)?.focus()

  const undo = useSteady(() => void step('undo'))
  const redo = useSteady(() => void step('redo'))
  // What is set now is saved first: it is one of the versions too.
  const openVersions = useSteady(() => void bench.settled().then(() => setOver('versions')))
  const openMatch = useSteady(() => setPlace({ match: '' }))
  const openFloor = useSteady(() => setPlace({ floor: '' }))

  const onTheBench: Handlers = {
    versions: openVersions,
    match: openMatch,
    floor: openFloor,
    drag: () => setOver('drag'),
    groups: () => setOver('groups'),
    stage: () => setOver('stage'),
    in_time: () => setOver('movement'),
    ...Object.fromEntries(STRIPS.filter((id) => id in COMMANDS).map((id) => [id, focus(`strip-${id}`)])),
    moment: focus('moment'),
    before: () => setComparing((now) => !now),
    both: () => look({ layers: 'both' }),
    flash: () => look({ layers: 'flash' }),
    ambient: () => look({ layers: 'ambient' }),
    whole: () => look({ crop: WHOLE }),
    light_after: next(1),
    light_before: next(-1),
    mute: () => change(withLight(shot, light, { on: !shot.lights[light]!.on })),
    solo: () => look({ solo: solo === light ? undefined : light }),
    undo,
    redo,
  }
  useCommands(InPlace ? {} : onTheBench)
  const backToTheBench = useSteady(() => setPlace({}))

  if (InPlace) {
    return (
      <Suspense fallback={<Waiting what="the shot" error={null} onRetry={() => undefined} />}>
        <InPlace
          shot={shot}
          saving={SAVING_WORDS[saving]}
          onChange={change}
          onUndo={undo}
          onClose={backToTheBench}
        />
        <Conflict mine={shot} theirs={bench.conflict} onSettle={bench.settle} />
      </Suspense>
    )
  }
  const dirty = shot !== kept.shot
  return (
    <main className={classes.bench}>
      <h1 className="hidden-text">{shot.title}</h1>
      <header className={classes.top}>
        <Names title={shot.title} place={shot.place} refused={refusal?.field === 'title'} onName={put} />
        <PartChips
          parts={shot.parts}
          camera={shot.camera}
          shotNow={shotNow}
          seen={answer?.forecast.parts}
          looked={inLoupe ? partAt(staged, pressedAt) : undefined}
          refusal={refusal}
          onChange={divide}
        />
        <span className={classes.spacer} />
        <Doors
          saving={saving}
          why={refusal?.detail}
          canUndo={kept.can_undo || dirty}
          canRedo={kept.can_redo && !dirty}
          onMatch={openMatch}
          onFloor={openFloor}
          onVersions={openVersions}
          onUndo={undo}
          onRedo={redo}
        />
      </header>
      {saving === 'silent' && (
        <p className={classes.banner} role="alert">
          Dash Pebble does not answer. What was saved is safe; start the program again and this page goes on
          by itself.
        </p>
      )}
      {saving === 'refused' && refusal && (
        <p className={classes.banner} role="alert">
          {refusal.detail} The picture shows the last settings that can be.
        </p>
      )}
      {moved.length > 0 && (
        <p className={classes.banner} data-moved role="status">
          {moved.map(({ sentence }) => `${sentence}.`).join(' ')}
          <CloseButton size="xs" aria-label="Close this notice" onClick={() => setMoved([])} />
        </p>
      )}
      <div className={classes.upper}>
        <Frame
          frames={bench.frames}
          view={view}
          look={look}
          exposure={answer?.forecast.exposure}
          depth={answer?.forecast.depth}
          alone={solo === undefined ? undefined : answer?.forecast.lights[solo]?.label}
          comparing={comparing}
          pixelsWide={shot.camera.body.pixels_wide}
          shape={frameShape(shot, staged)}
          staging={
            over === 'stage' && staged
              ? {
                  staged,
                  who,
                  onWho: setWho,
                  parts: shot.parts.map(({ name }) => name),
                  part: pressed,
                  onPart: setPressed,
                  onMove: (to) => change(withPersonAt(shot, staged, who, to)),
                }
              : undefined
          }
          lanes={lookedAt === undefined ? undefined : lanes}
          onStage={() => setOver('stage')}
          onPress={setPressedAt}
        />
        <Ladder ladder={answer?.forecast.ladder} subject={answer?.forecast.subject} onTarget={aim} />
        <Findings findings={answer?.findings} onApply={apply}>
          {cautions}
        </Findings>
      </div>
      <Moment forecast={answer?.forecast} chosen={light} onInTime={openInTime} />
      <Controls
        shot={shot}
        workedOut={bench.workedOut}
        answer={answer}
        refusal={refusal}
        held={held}
        light={light}
        solo={solo}
        onLight={setChosen}
        onSolo={(solo) => look({ solo })}
        onChange={change}
        onTurn={turn}
        onMoved={setMoved}
        onDrag={() => setOver('drag')}
        onGroups={() => setOver('groups')}
      />
      <Suspense fallback={null}>
        {over === 'versions' && (
          <Versions now={shot} kept={kept} onBack={bench.adopt} onClose={() => setOver(undefined)} />
        )}
        {over === 'stage' && staged && (
          <StageSheet
            shot={shot}
            staged={staged}
            who={who}
            onWho={setWho}
            refused={(field) => (refusal?.field === field ? refusal.detail : undefined)}
            onChange={change}
            onClose={() => setOver(undefined)}
          />
        )}
        {over === 'movement' && (
          <MovementSheet
            shot={shot}
            lanes={lanes}
            forecast={answer?.forecast}
            refusal={refusal}
            at={lookedAt}
            onAt={setLookedAt}
            onChange={change}
            onClose={() => {
              setOver(undefined)
              setLookedAt(undefined)
            }}
          />
        )}
        {over === 'drag' && (
          <Drag
            shot={shot}
            ambient={answer?.forecast.ambient_subject.placement_stops ?? undefined}
            onTake={(to) => {
              change(to)
              setOver(undefined)
            }}
            onClose={() => setOver(undefined)}
          />
        )}
        {over === 'groups' && (
          <Groups
            shot={shot}
            onChange={change}
            onTake={(to) => {
              change(to)
              setOver(undefined)
            }}
            onClose={() => setOver(undefined)}
          />
        )}
      </Suspense>
      <Bay />
      <Conflict mine={shot} theirs={bench.conflict} onSettle={bench.settle} />
      <span className="hidden-text" aria-live="polite">
        {view.layers === 'both' ? '' : `Showing ${view.layers} only`}
      </span>
    </main>
  )
}
