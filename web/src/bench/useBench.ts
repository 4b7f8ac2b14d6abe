import { useCallback, useEffect, useRef, useState } from 'react'
import { WHOLE, type Held, type Shot, type ShotAnswer } from '../api/client'
import type { Now, Saving } from './now'
import { useComputing } from './useComputing'
import { useHold } from './useHold'
import { useSaving } from './useSaving'

/** The shot on the Bench: what is set, what it gives while somebody sees it, and its safe keeping. */
export function useBench(initial: ShotAnswer, inSight: boolean) {
  const [shot, setShot] = useState(initial.shot)
  const [saving, setSaving] = useState<Saving>('saved')
  const now: Now = useRef({
    shot: initial.shot,
    kept: initial,
    view: { layers: 'both', crop: WHOLE, width: 640 },
    refused: false,
    conflict: false,
    followed: Promise.resolve(),
  })
  const { answer, workedOut, frames, view, refusal, setRefusal, recompute, look } = useComputing(
    now,
    setSaving,
    inSight,
  )

  // A version that is adopted is a new look; the hold below is told of it.
  const rebased = useRef<(shot: Shot) => void>(undefined)
  const onAdopted = useCallback(
    (shot: Shot) => {
      rebased.current?.(shot)
      setShot(shot)
      recompute()
    },
    [recompute],
  )
  const { saveSoon, ...kept } = useSaving({ now, initial, say: setSaving, onRefusal: setRefusal, onAdopted })

  const enter = useCallback(
    (next: Shot) => {
      frames.keep()
      now.current.shot = next
      // Nobody has refused it yet.
      now.current.refused = false
      setShot(next)
      recompute()
      saveSoon()
    },
    [frames, recompute, saveSoon],
  )
  const { held, rebase, follow } = useHold(now, enter)
  useEffect(() => {
    rebased.current = rebase
  }, [rebase])

  /** Changes anything; the look that is held is then the new one. */
  const change = useCallback(
    (to: Shot | ((shot: Shot) => Shot)) => {
      const next = typeof to === 'function' ? to(now.current.shot) : to
      rebase(next)
      enter(next)
    },
    [enter, rebase],
  )

  /** Turns one control, or the light itself; what is locked stays, and the other controls follow. */
  const turn = useCallback(
    (turned: Held | undefined, to: Shot, light?: number) => {
      if (!to.hold?.length) return change(to)
      enter(to)
      follow.run({ shot: to, turned, light })
      now.current.followed = follow.idle
    },
    [change, enter, follow, now],
  )

  return { shot, workedOut, answer, frames, view, refusal, saving, held, change, turn, look, ...kept }
}

export type BenchState = ReturnType<typeof useBench>
