import { Button, Checkbox, Popover, SegmentedControl, Stack } from '@mantine/core'
import { useMutation, useQuery } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'
import { answered, client, type FloorRequest, type Shot } from '../api/client'
import { Key } from '../commands/Key'
import { useCommands } from '../commands/useCommands'
import { Figure } from '../controls/Figure'
import { ShotFrame } from '../marks/ShotFrame'
import { download } from '../words/download'
import { signedStops } from '../words/figures'
import { AreaAndSheet } from './AreaAndSheet'
import { Arrangements, Behind, SunAndRoom, Way } from './Around'
import { asFile } from './drawing'
import { FromAbove } from './FromAbove'
import { FromTheSide } from './FromTheSide'
import { InHand } from './InHand'
import { ALL, LAYERS, type Layer } from './layers'
import type { Place } from './Measuring'
import { Notes } from './Notes'
import { Rebuild } from './Rebuild'
import { Tapes } from './Tapes'
import { useFloor } from './useFloor'
import { WaysToEven } from './WaysToEven'
import classes from './Floor.module.css'

type Props = {
  shot: Shot
  saving: string
  onChange: (shot: Shot) => void
  onUndo: () => void
  onClose: () => void
}

const TABS = ['Light', 'Area', 'Behind', 'Way', 'Sun, room']

/** The set from above and from the side, to one scale: where everything stands, how even it is lit, what the lens sees. */
export function Floor({ shot, saving, onChange, onUndo, onClose }: Props) {
  const [inHand, setInHand] = useState(0)
  const [tab, setTab] = useState(TABS[0]!)
  const [of, setOf] = useState<'light' | 'all'>('all')
  const [height, setHeight] = useState(1.3)
  const [gust, setGust] = useState<number>()
  const [layers, setLayers] = useState<Layer[]>(ALL)
  const [ends, setEnds] = useState<Place[]>()
  const [taped, setTaped] = useState<FloorRequest['taped']>()
  const drawing = useRef<HTMLElement>(null)
  const light = Math.min(inHand, shot.lights.length - 1)
  const { seen, shown, carry, settle, refusal } = useFloor(
    shot,
    {
      light: of === 'light' ? light : null,
      in_hand: light,
      height_m: height,
      gust_m_s: gust ?? null,
      measure: ends?.length === 2 ? ends : null,
      taped: taped?.light === light ? taped : null,
    },
    onChange,
  )
  const bench = useQuery({
    queryKey: ['floor', 'cautions', shot],
    queryFn: () => answered(client.POST('/api/bench', { body: shot })),
    retry: false,
    gcTime: 0,
  })
  useEffect(() => {
    document.title = `${shot.title}, the floor · Dash Pebble`
  }, [shot.title])
  useCommands({ to_bench: onClose, floor: onClose, undo: onUndo })
  const put = (change: Partial<Shot>) => onChange({ ...shot, ...change })
  const hand = (light: number) => {
    setInHand(light)
    setTab(TABS[0]!)
  }
  const table = useMutation({
    mutationFn: () => answered(client.POST('/api/floor/table', { body: shot, parseAs: 'text' })),
    onSuccess: (text) => download(new Blob([text as string], { type: 'text/csv' }), `${shot.title} set.csv`),
  })
  const told = of === 'light' ? seen?.lights[light]?.evenness : seen?.together
  const small = { size: 'compact-sm', radius: 'xl', variant: 'default' } as const
  return (
    <main className={classes.floor}>
      <header className={classes.head}>
        <h1 className={classes.title}>
          {shot.title} <small>the set on the floor</small>
        </h1>
        <span className={classes.spacer} />
        <span className={classes.saving}>{saving}</span>
        <Arrangements shot={shot} onChange={onChange} />
        <Button {...small} onClick={() => window.print()}>
          Print to rebuild
        </Button>
        <Button {...small} onClick={() => table.mutate()}>
          Table
        </Button>
        <Button
          {...small}
          onClick={() => {
            const svg = drawing.current?.querySelector('svg')
            if (svg) download(asFile(svg), `${shot.title} set.svg`)
          }}
        >
          Drawing
        </Button>
        <Button {...small} onClick={onClose}>
          Bench&nbsp;
          <Key of="to_bench" />
        </Button>
      </header>
      <section className={classes.plan} aria-label="From above" ref={drawing}>
        <div className={classes.tools}>
          <SegmentedControl
            size="xs"
            radius="xl"
            aria-label="Light that is told"
            value={of}
            onChange={(to) => setOf(to as 'light' | 'all')}
            data={[
              { value: 'all', label: 'All meant for it' },
              { value: 'light', label: `${seen?.lights[light]?.label ?? 'One'} alone` },
            ]}
          />
          <span className={classes.told} data-testid="evenness">
            {told
              ? `${signedStops(told.high_stops)} … ${signedStops(told.low_stops)} over the area, ${Math.round(told.within_third * 100)} % within a third`
              : 'No light on the area'}
          </span>
          <span className={classes.spacer} />
          <Button
            {...small}
            aria-pressed={!!ends}
            variant={ends ? 'filled' : 'default'}
            onClick={() => setEnds(ends ? undefined : [])}
          >
            Measure
          </Button>
          <Popover position="bottom-end" withinPortal={false}>
            <Popover.Target>
              <Button {...small}>Layers</Button>
            </Popover.Target>
            <Popover.Dropdown>
              <Checkbox.Group value={layers} onChange={(on) => setLayers(on as Layer[])} aria-label="Layers">
                <Stack gap={6}>
                  {LAYERS.map(({ value, label }) => (
                    <Checkbox key={value} size="xs" value={value} label={label} />
                  ))}
                </Stack>
              </Checkbox.Group>
            </Popover.Dropdown>
          </Popover>
          <Figure
            w={80}
            aria-label="Height that is told"
            suffix=" m"
            step={0.1}
            value={height}
            onChange={setHeight}
          />
          <span className={classes.told}>up</span>
        </div>
        <p className={classes.ends} data-testid="ends">
          {seen?.ends}
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
            onSettle={settle}
          />
        )}
      </section>
      <section className={classes.side} aria-label="From the side">
        {seen && <FromTheSide seen={seen} inHand={light} onInHand={hand} onCarry={carry} onSettle={settle} />}
      </section>
      <aside className={classes.column}>
        <div className={classes.frame}>
          <ShotFrame shot={shown} />
        </div>
        {(refusal ?? table.error) && (
          <p role="alert" className={classes.refused}>
            {refusal ?? table.error?.message}
          </p>
        )}
        <SegmentedControl
          className={classes.tabs}
          size="xs"
          radius="xl"
          aria-label="What of it"
          data={TABS}
          value={tab}
          onChange={setTab}
        />
        {seen && tab === 'Light' && (
          <InHand seen={seen} light={light} onCarry={carry} onSettle={settle}>
            <Tapes key={light} seen={seen} light={light} onTaped={setTaped} />
          </InHand>
        )}
        {seen && tab === 'Area' && (
          <section className={classes.panel} aria-label="Area">
            <AreaAndSheet area={seen.area} sheet={shot.sheet} gust={gust} onChange={put} onGust={setGust} />
            <WaysToEven shot={shot} onChange={onChange} />
          </section>
        )}
        {seen && tab === 'Behind' && <Behind seen={seen} />}
        {seen && tab === 'Way' && <Way seen={seen} shot={shot} onChange={put} />}
        {seen && tab === 'Sun, room' && <SunAndRoom seen={seen} shot={shot} onChange={put} />}
        {seen && (
          <Notes
            seen={seen}
            onTake={(to) => {
              setInHand(to.light)
              carry(to)
              settle()
            }}
          />
        )}
      </aside>
      {seen && <Rebuild seen={seen} cautions={bench.data?.cautions} />}
    </main>
  )
}
