import { Button, SegmentedControl } from '@mantine/core'
import { useEffect, useState } from 'react'
import type { Shot } from '../api/client'
import { Key } from '../commands/Key'
import { useCommands } from '../commands/useCommands'
import { Figure } from '../controls/Figure'
import { MaybeFigure } from '../controls/MaybeFigure'
import { ShotFrame } from '../marks/ShotFrame'
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
              const signed = (stops: number) => `${stops < 0 ? '−' : '+'}${Math.abs(stops).toFixed(1)}`
              return `${signed(told.high_stops)} … ${signed(told.low_stops)} over the area, ${Math.round(told.within_third * 100)} % within a third`
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
            onTake={(light, to) => {
              setInHand(light)
              carry({ light, ...to })
              settle()
            }}
          />
        )}
        {area && (
          <div className={classes.fields}>
            <Figure
              label="Area, wide"
              suffix=" m"
              step={0.5}
              value={+(area.right_m - area.left_m).toFixed(3)}
              onChange={(wide) => put({ area: { ...area, left_m: -wide / 2, right_m: wide / 2 } })}
            />
            <Figure
              label="Deep"
              suffix=" m"
              step={0.5}
              value={+(area.far_m - area.near_m).toFixed(3)}
              onChange={(deep) => put({ area: { ...area, near_m: -deep / 2, far_m: deep / 2 } })}
            />
            <Figure
              label="From"
              suffix=" m"
              step={0.1}
              value={area.low_m}
              onChange={(low_m) => put({ area: { ...area, low_m } })}
            />
            <Figure
              label="Up to"
              suffix=" m"
              step={0.1}
              value={area.high_m}
              onChange={(high_m) => put({ area: { ...area, high_m } })}
            />
            <MaybeFigure
              label="Sheet, wide"
              suffix=" m"
              step={0.1}
              placeholder="none"
              value={shot.sheet?.width_m}
              onChange={(width_m) =>
                put({
                  sheet:
                    width_m === undefined ? undefined : { height_m: shot.sheet?.height_m ?? 2.7, width_m },
                })
              }
            />
            {shot.sheet && (
              <Figure
                label="High"
                suffix=" m"
                step={0.1}
                value={shot.sheet.height_m}
                onChange={(height_m) => put({ sheet: { ...shot.sheet!, height_m } })}
              />
            )}
            <MaybeFigure
              label="Gust"
              suffix=" m/s"
              step={1}
              placeholder="no wind"
              value={gust}
              onChange={setGust}
            />
          </div>
        )}
      </aside>
    </main>
  )
}
