import { Button, Tooltip } from '@mantine/core'
import { useEffect, useRef, useState } from 'react'
import { answered, client } from '../../api/client'
import classes from './Movement.module.css'

/** Presses that are asked for. */
const PRESSES = 5
/** The shortest and the longest wait before the sign, in ms. */
const WAIT = [900, 2600] as const

type Props = {
  reaction: number
  spread: number
  measured: boolean
  onMeasured: (measured: { reaction_s: number; spread_s: number }) => void
}

/** How somebody presses, measured by a few presses after a sign. */
export function Reaction({ reaction, spread, measured, onMeasured }: Props) {
  const [state, setState] = useState<'rest' | 'wait' | 'now' | 'early'>('rest')
  const [count, setCount] = useState(0)
  const [refusal, setRefusal] = useState<string>()
  const presses = useRef<number[]>([])
  const shown = useRef(0)
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined)
  useEffect(() => () => clearTimeout(timer.current), [])
  const wait = () => {
    setState('wait')
    const pause = WAIT[0] + Math.random() * (WAIT[1] - WAIT[0])
    timer.current = setTimeout(() => {
      setState('now')
      // From the picture on, not from when it was asked for.
      requestAnimationFrame(() => (shown.current = performance.now()))
    }, pause)
  }
  const press = () => {
    if (state === 'rest') {
      presses.current = []
      setCount(0)
      setRefusal(undefined)
      return wait()
    }
    if (state !== 'now') {
      clearTimeout(timer.current)
      setState('early')
      timer.current = setTimeout(wait, 700)
      return
    }
    presses.current.push((performance.now() - shown.current) / 1000)
    setCount(presses.current.length)
    if (presses.current.length < PRESSES) return wait()
    setState('rest')
    answered(client.POST('/api/reaction', { body: { presses_s: presses.current } })).then(
      ({ reaction_s, spread_s }) =>
        onMeasured({ reaction_s: +reaction_s.toFixed(3), spread_s: +spread_s.toFixed(3) }),
      (failure: Error) => {
        setCount(0)
        setRefusal(failure.message)
      },
    )
  }
  const words = {
    rest: measured ? 'Measure again' : 'Measure my press',
    wait: 'Wait …',
    now: 'Now!',
    early: 'Too early',
  }[state]
  return (
    <div className={classes.reaction}>
      <span className={classes.label}>
        Press <b className="mono">{(reaction * 1000).toFixed(0)} ms</b>, off by{' '}
        <b className="mono">±{(spread * 1000).toFixed(0)}</b> {measured ? '' : '(usual)'}
      </span>
      <Tooltip label="Five times: press, or Space, as soon as it says so">
        <Button
          size="compact-sm"
          radius="xl"
          variant={state === 'now' ? 'filled' : 'default'}
          data-reaction={state}
          onPointerDown={(event) => {
            event.preventDefault()
            press()
          }}
          onKeyDown={(event) => {
            if ((event.key !== ' ' && event.key !== 'Enter') || event.repeat) return
            event.preventDefault()
            press()
          }}
        >
          {words} {state === 'rest' ? '' : `${count} of ${PRESSES}`}
        </Button>
      </Tooltip>
      {refusal && (
        <span role="alert" className={classes.refused}>
          {refusal}
        </span>
      )}
    </div>
  )
}
