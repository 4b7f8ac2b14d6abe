import { replaceEqualDeep } from '@tanstack/react-query'
import { useCallback, useEffect, useRef, useState } from 'react'
import { answered, client, type FloorAnswer, type FloorRequest, type Shot } from '../api/client'

type Asked = Pick<
  FloorRequest,
  'light' | 'ambient' | 'in_hand' | 'height_m' | 'gust_m_s' | 'measure' | 'taped'
>
export type Carried = NonNullable<FloorRequest['carried']>
export type LampTo = NonNullable<FloorRequest['lamp_carried']>

/**
 * The set of a shot, worked out again whenever something of it changes. While a light is carried, the last place that was
 * asked for is the one that is shown; it goes into the shot when it is set down.
 */
export function useFloor(shot: Shot, asked: Asked, onChange: (shot: Shot) => void) {
  const [seen, setSeen] = useState<FloorAnswer>()
  const [refusal, setRefusal] = useState<string>()
  const carried = useRef<Pick<FloorRequest, 'carried' | 'lamp_carried'> | undefined>(undefined)
  const last = useRef<FloorAnswer>(undefined)
  const running = useRef(false)
  const again = useRef(false)
  const down = useRef(false)
  const sketched = useRef<Shot | undefined>(undefined)
  const latest = useRef({ shot, asked, onChange })
  /** What is shown is of this, as it was set down: it need not be asked for again. */
  const settled = useRef<{ shot: Shot; asked: Asked }>(undefined)
  useEffect(() => {
    latest.current = { shot, asked, onChange }
  })

  const work = useCallback(async () => {
    if (running.current) {
      again.current = true
      return
    }
    running.current = true
    // What was refused as it was set down stays said while the set is shown as it is kept.
    let refused: string | undefined
    do {
      again.current = false
      const { asked } = latest.current
      const shot = sketched.current ?? latest.current.shot
      try {
        const body = { shot, ...carried.current, ...asked }
        // What is as it was stays the very same, and is not drawn again.
        const answer = replaceEqualDeep(last.current, await answered(client.POST('/api/floor', { body })))
        last.current = answer
        setSeen(answer)
        setRefusal(refused)
        refused = undefined
        if (down.current && !again.current) {
          down.current = false
          carried.current = undefined
          sketched.current = undefined
          // What comes next goes on from here, whenever the page hears of it.
          latest.current = { ...latest.current, shot: answer.shot }
          settled.current = { shot: answer.shot, asked }
          latest.current.onChange(answer.shot)
        }
      } catch (failure) {
        setRefusal((failure as Error).message)
        if (down.current) {
          refused = (failure as Error).message
          down.current = false
          carried.current = undefined
          sketched.current = undefined
          again.current = true
        }
      }
    } while (again.current)
    running.current = false
  }, [])

  const told = JSON.stringify(asked)
  useEffect(() => {
    const { current } = settled
    if (current?.shot === shot && JSON.stringify(current.asked) === told) return
    settled.current = undefined
    void work()
  }, [work, shot, told])

  const carry = useCallback(
    (to: Carried) => {
      carried.current = { carried: to }
      void work()
    },
    [work],
  )
  const carryLamp = useCallback(
    (to: LampTo) => {
      carried.current = { lamp_carried: to }
      void work()
    },
    [work],
  )
  const sketch = useCallback(
    (to: Shot) => {
      sketched.current = to
      void work()
    },
    [work],
  )
  const settle = useCallback(() => {
    if (!carried.current && !sketched.current) return
    down.current = true
    // The answer that is on its way is of the last place; it is set down there when it comes.
    if (!running.current) void work()
  }, [work])
  return { seen, shown: seen?.shot ?? shot, carry, carryLamp, sketch, settle, refusal }
}
