import { Button, SegmentedControl } from '@mantine/core'
import { useEffect, useState } from 'react'
import type { Shot } from '../api/client'
import { Key } from '../commands/Key'
import { useCommands } from '../commands/useCommands'
import { Figure } from '../controls/Figure'
import { ShotFrame } from '../marks/ShotFrame'
import { signedStops } from '../words/figures'
import { AreaAndSheet } from './AreaAndSheet'
import { FromAbove } from './FromAbove'
import { FromTheSide } from './FromTheSide'
import { InHand } from './InHand'
import { Notes } from './Notes'
import { useFloor } from './useFloor'
import classes from './Floor.module.css'

type Props = {
  shot: Shot
  saving: string
  onChange: (shot: Shot) => void
  onUndo: () => void
  onClose: () => void
}

/** The set from above and from the side, to one scale: where everything stands, how even it is lit, what the lens sees. */
export function Floor({ shot, saving, onChange, onUndo, onClose }: Props) {
  const [inHand, setInHand] = useState(0)
  const [of, setOf] = useState<'light' | 'all'>('all')
  const [height, setHeight] = useState(1.3)
  const [gust, setGust] = useState<number>()
  const light = Math.min(inHand, shot.lights.length - 1)
  const { seen, shown, carry, settle, refusal } = useFloor(
    shot,
    { light: of === 'light' ? light : null, height_m: height, gust_m_s: gust ?? null },
    onChange,
  )
  useEffect(() => {
    document.title = `${shot.title}, the floor · Dash Pebble`
  }, [shot.title])
  useCommands({ to_bench: onClose, floor: onClose, undo: onUndo })
  const put = (change: Partial<Shot>) => onChange({ ...shot, ...change })
  const area = seen?.area
  return (
    <main className={classes.floor}>
      <header className={classes.head}>
        <h1 className={classes.title}>
          {shot.title} <small>the set on the floor</small>
        </h1>
        <span className={classes.spacer} />
        <span className={classes.saving}>{saving}</span>
        <Button size="compact-sm" radius="xl" variant="default" onClick={onClose}>
          Bench&nbsp;
          <Key of="to_bench" />
        </Button>
      </header>
      <section className={classes.plan} aria-label="From above">
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
            {(() => {
              const told = of === 'light' ? seen?.lights[light]?.evenness : seen?.together
              if (!told) return 'No light on the area'
              return `${signedStops(told.high_stops)} … ${signedStops(told.low_stops)} over the area, ${Math.round(told.within_third * 100)} % within a third`
            })()}
          </span>
          <span className={classes.spacer} />
          <Figure
            w={92}
            aria-label="Height that is told"
            suffix=" m"
            step={0.1}
            value={height}
            onChange={setHeight}
          />
          <span className={classes.told}>up</span>
        </div>
        {seen && (
          <FromAbove seen={seen} inHand={light} onInHand={setInHand} onCarry={carry} onSettle={settle} />
        )}
      </section>
      <section className={classes.side} aria-label="From the side">
        {seen && (
          <FromTheSide seen={seen} inHand={light} onInHand={setInHand} onCarry={carry} onSettle={settle} />
        )}
      </section>
      <aside className={classes.column}>
        <div className={classes.frame}>
          <ShotFrame shot={shown} />
        </div>
        {seen && <InHand seen={seen} light={light} onCarry={carry} onSettle={settle} />}
        {refusal && (
          <p role="alert" className={classes.refused}>
            {refusal}
          </p>
        )}
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
        {area && <AreaAndSheet area={area} sheet={shot.sheet} gust={gust} onChange={put} onGust={setGust} />}
      </aside>
    </main>
  )
}
