import { useDebouncedValue } from '@mantine/hooks'
import { useQuery } from '@tanstack/react-query'
import { memo, useDeferredValue, useEffect, useRef, useState } from 'react'
import { answered, client, type FloorRequest, type Shot } from '../api/client'
import { useCommands } from '../commands/useCommands'
import { ShotFrame } from '../marks/ShotFrame'
import { useSteady } from '../shell/useSteady'
import { AreaAndSheet } from './AreaAndSheet'
import { Behind, SunAndRoom, Way } from './Around'
import { FloorHead } from './FloorHead'
import { FloorTools, WhatOfIt, WhoseLight, type Tab, type Told } from './FloorTools'
import { FromAbove } from './FromAbove'
import { People } from './People'
import { StandInWind } from './StandInWind'
import { FromTheSide } from './FromTheSide'
import { InHand } from './InHand'
import { Lamps } from './Lamps'
import { ALL, type Layer } from './layers'
import type { Place } from './Measuring'
import { Notes } from './Notes'
import { Said } from './Said'
import { Rebuild } from './Rebuild'
import { useFloor, type Carried, type LampTo } from './useFloor'
import { WaysToEven } from './WaysToEven'
import classes from './Floor.module.css'

type Props = {
  shot: Shot
  saving: string
  onChange: (shot: Shot) => void
  onUndo: () => void
  onClose: () => void
}

/** After the last change; a key that is held repeats sooner. */
const REST_MS = 300

/** The set from above and from the side, to one scale: where everything stands, how even it is lit, what the lens sees. */
export const Floor = memo(function Floor({ shot, saving, onChange, onUndo, onClose }: Props) {
  const [inHand, setInHand] = useState(0)
  const [tab, setTab] = useState<Tab>('Light')
  const [of, setOf] = useState<Told>('all')
  const [height, setHeight] = useState(1.3)
  const [gust, setGust] = useState<number>()
  const [layers, setLayers] = useState<Layer[]>(ALL)
  const [ends, setEnds] = useState<Place[]>()
  const [taped, setTaped] = useState<FloorRequest['taped']>()
  const [refused, setRefused] = useState<string>()
  const [said, setSaid] = useState<string[]>([])
  const drawing = useRef<HTMLElement>(null)
  const light = Math.min(inHand, shot.lights.length - 1)
  const { seen, shown, carry, carryLamp, sketch, settle, refusal } = useFloor(
    shot,
    {
      light: of === 'light' ? light : null,
      ambient: of === 'ambient',
      in_hand: light,
      height_m: height,
      gust_m_s: gust ?? null,
      measure: ends?.length === 2 ? ends : null,
      taped: taped?.light === light ? taped : null,
    },
    onChange,
  )
  // Paper has time: nobody prints while a light is carried.
  const [rested] = useDebouncedValue(shot, REST_MS)
  const bench = useQuery({
    queryKey: ['floor', 'cautions', rested],
    queryFn: () => answered(client.POST('/api/bench', { body: rested })),
    retry: false,
    gcTime: 0,
  })
  const onPaper = useDeferredValue(seen)
  useEffect(() => {
    document.title = `${shot.title}, the floor · Dash Pebble`
  }, [shot.title])
  useCommands({ to_bench: onClose, floor: onClose, undo: onUndo })
  const shotNow = useSteady(() => shot)
  const put = useSteady((change: Partial<Shot>) => onChange({ ...shot, ...change }))
  const take = useSteady((to: Carried) => {
    setInHand(to.light)
    carry(to)
    settle()
  })
  const hand = useSteady((light: number) => {
    setInHand(light)
    setTab('Light')
  })
  const takeLamp = useSteady((to: LampTo) => {
    carryLamp(to)
    settle()
  })
  return (
    <main className={classes.floor}>
      <FloorHead
        title={shot.title}
        saving={saving}
        shotNow={shotNow}
        drawing={drawing}
        onChange={onChange}
        onRefused={setRefused}
        onSaid={setSaid}
        onClose={onClose}
      />
      <section className={classes.plan} aria-label="From above" ref={drawing}>
        <div className={classes.tools}>
          <WhoseLight of={of} label={seen?.lights[light]?.label ?? 'One'} onOf={setOf} />
          <span className={classes.spacer} />
          <FloorTools
            ends={ends}
            layers={layers}
            height={height}
            onEnds={setEnds}
            onLayers={setLayers}
            onHeight={setHeight}
          />
        </div>
        <p className={classes.ends}>
          <span data-testid="evenness">{seen?.even_says}</span>
          {seen?.ends && (
            <>
              {' · '}
              <span data-testid="ends">{seen.ends}</span>
            </>
          )}
        </p>
        {seen && (
          <FromAbove
            seen={seen}
            inHand={light}
            layers={layers}
            ends={ends}
            onEnds={setEnds}
            onInHand={hand}
            onCarry={carry}
            onCarryLamp={carryLamp}
            onSketch={sketch}
            onSettle={settle}
          />
        )}
      </section>
      <section className={classes.side} aria-label="From the side">
        {seen && (
          <FromTheSide
            seen={seen}
            inHand={light}
            onInHand={hand}
            onCarry={carry}
            onCarryLamp={carryLamp}
            onSettle={settle}
          />
        )}
      </section>
      <aside className={classes.column}>
        <div className={classes.frame}>
          <ShotFrame shot={shown} />
        </div>
        {(refusal ?? refused) && (
          <p role="alert" className={classes.refused}>
            {refusal ?? refused}
          </p>
        )}
        {said.length > 0 && <Said says={said} onRead={() => setSaid([])} />}
        <WhatOfIt tab={tab} lamps={!!seen?.lamps.length} onTab={setTab} />
        {seen && tab === 'Light' && (
          <InHand seen={seen} light={light} onCarry={carry} onSettle={settle} onTaped={setTaped} />
        )}
        {seen && tab === 'Lamps' && <Lamps seen={seen} shot={shot} onPut={put} onCarry={takeLamp} />}
        {seen && tab === 'Area' && (
          <section className={classes.panel} aria-label="Area">
            <AreaAndSheet area={seen.area} sheet={shot.sheet} gust={gust} onChange={put} onGust={setGust}>
              {gust !== undefined && seen.lights[light] && !seen.lights[light].on_camera && (
                <StandInWind seen={seen} light={light} shot={shot} onChange={put} />
              )}
            </AreaAndSheet>
            <WaysToEven shot={shot} onChange={onChange} />
            <People people={seen.people} onTake={take} />
          </section>
        )}
        {seen && tab === 'Background' && <Behind seen={seen} />}
        {seen && tab === 'Way' && <Way seen={seen} shot={shot} onChange={put} />}
        {seen && tab === 'Sun, room' && <SunAndRoom seen={seen} shot={shot} onChange={put} />}
        {seen && <Notes notes={seen.notes} onTake={take} onTakeLamp={takeLamp} />}
      </aside>
      {onPaper && <Rebuild seen={onPaper} cautions={bench.data?.cautions} />}
    </main>
  )
})
