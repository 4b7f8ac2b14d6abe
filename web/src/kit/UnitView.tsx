import { Select, Text } from '@mantine/core'
import { useEffect, useMemo, useRef, useState, type ReactNode } from 'react'
import { Refusal, type FlashUnit, type Guide } from '../api/client'
import { useShotNames } from '../api/names'
import { AtThisPower } from './AtThisPower'
import { DurationCurves } from './DurationCurves'
import type { Lane } from './lanes'
import { PulseShapes } from './PulseShapes'
import { useGuides, useSheets } from './useKit'
import classes from './UnitView.module.css'

type Props = {
  /** The unit in hand first, then those it is compared with. */
  units: FlashUnit[]
  /** Where figures are entered, while they are. */
  entry: ReactNode
  /** Else, what is known of the unit in hand. */
  children: (lane: Lane, powerNow: () => number) => ReactNode
}

const NONE: Guide[] = []
const GUIDE_SHOT = 'dash-pebble-guide-shot'

/** Flash units: what they do at each power, against each other and against what a shot asks. */
export function UnitView({ units, entry, children }: Props) {
  const [power, setPower] = useState(0.25)
  const [rate, setRate] = useState(2)
  const shots = useShotNames().data
  const [chosen, setChosen] = useState(() => localStorage.getItem(GUIDE_SHOT))
  const shot = shots?.find((one) => one.id === chosen)?.id ?? shots?.[0]?.id ?? null
  const guides = useGuides(shot).data ?? NONE
  const sheets = useSheets(units, rate)
  useEffect(() => {
    if (chosen) localStorage.setItem(GUIDE_SHOT, chosen)
  }, [chosen])

  const lanes = useSame(
    units.flatMap((unit, index) => {
      const sheet = sheets[index]?.sheet
      return sheet ? [{ unit, sheet }] : []
    }),
  )
  const first = lanes[0]
  const now = useRef(power)
  useEffect(() => {
    now.current = power
  }, [power])
  // Nothing of it hangs on the cursor: it stands while that moves.
  const facts = useMemo(() => first && children(first, () => now.current), [first, children])
  const refusal = sheets.map(({ error }) => error).find((error) => error)
  return (
    <>
      <section className={classes.middle} aria-label="Durations">
        <header className={classes.head}>
          <h2 className={classes.title}>
            t0.1 against power <small>with t0.5 below it</small>
          </h2>
          <Select
            size="xs"
            w={250}
            aria-label="Marks of the shot"
            leftSection={<Text size="xs">for</Text>}
            data={(shots ?? []).map((one) => ({ value: one.id, label: one.title }))}
            value={shot}
            allowDeselect={false}
            onChange={setChosen}
          />
        </header>
        {!first && entry && (
          <div className={classes.asked}>
            <p>
              Three things make a first answer: its <b>name</b>, <b>how its light is known</b> at full power,
              and <b>how it makes less</b>. All the rest may wait: what is not known is said where it costs
              something.
            </p>
            {refusal instanceof Refusal && <p>{refusal.problem.detail}</p>}
          </div>
        )}
        {first && refusal instanceof Refusal && (
          <p role="alert" className={classes.refusal}>
            {refusal.problem.detail} The curves show the last figures that can be.
          </p>
        )}
        {first ? (
          <>
            <DurationCurves lanes={lanes} guides={guides} power={power} onPower={setPower} />
            <div className={classes.lower} data-many={lanes.length > 2 || undefined}>
              <div>
                <h3 className={classes.title}>The pulse</h3>
                <PulseShapes lanes={lanes} power={power} />
              </div>
              <AtThisPower lanes={lanes} power={power} rate={rate} onRate={setRate} />
            </div>
          </>
        ) : null}
      </section>
      <aside className={classes.side}>{entry ?? facts}</aside>
    </>
  )
}

/** The list of the last time while its units and sheets are the same, so that what is drawn from it can stand. */
function useSame(lanes: Lane[]): Lane[] {
  const before = useRef(lanes)
  const same =
    before.current.length === lanes.length &&
    lanes.every(
      ({ unit, sheet }, k) => before.current[k]?.unit === unit && before.current[k]?.sheet === sheet,
    )
  if (!same) before.current = lanes
  return before.current
}
