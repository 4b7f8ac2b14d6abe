import { useCallback, useMemo, useRef, useState } from 'react'
import { answered, client, type Held, type HoldAnswer, type Shot } from '../api/client'
import { applied } from '../api/applied'
import { Latest } from './latest'
import type { Now } from './now'

/** A look that is held: one control is turned, and the others follow. */
export function useHold(now: Now, enter: (shot: Shot) => void) {
  // The shot whose look is held: it stands while controls follow, so that nothing creeps.
  const base = useRef(now.current.shot)
  const [held, setHeld] = useState<HoldAnswer>()

  /** From now on it is the look of this one. */
  const rebase = useCallback((shot: Shot) => {
    base.current = shot
    setHeld(undefined)
  }, [])

  const follow = useMemo(
    () =>
      new Latest<{ shot: Shot; turned: Held | undefined; light: number | undefined }>(
        async ({ shot, turned, light }) => {
          try {
            const answer = await answered(
              client.POST('/api/hold', {
                body: { base: base.current, shot, turned: turned ?? null, light: light ?? null },
              }),
            )
            // Turned further meanwhile: the answer to that is on its way.
            if (now.current.shot !== shot) return
            setHeld(answer)
            if (answer.followed.length > 0) enter(applied(shot, answer.followed))
          } catch {
            // What keeps it from being held keeps it from being computed too, and is said there.
            setHeld(undefined)
          }
        },
      ),
    [enter, now],
  )
  return { held, rebase, follow }
}
