import { startTransition, useCallback, useEffect, useMemo, useRef, useState } from 'react'
import {
  answered,
  client,
  picture,
  Refusal,
  WHOLE,
  type BenchAnswer,
  type Held,
  type HoldAnswer,
  type Crop,
  type Layers,
  type Problem,
  type Shot,
  type ShotAnswer,
} from '../api/client'
import { applied } from '../api/applied'
import { Frames } from './frames'
import { soloed } from './lights/lights'
import { Latest } from './latest'

/** How long after the last change a shot is saved: a held key makes one revision, not fifty. */
const SAVE_AFTER_MS = 350
/** Asks again when the program did not answer. */
const RETRY_MS = 1500

/** What of the picture is looked at; `solo` is the one light that is alone in it. */
export type View = { layers: Layers; crop: Crop; width: number; solo?: number | undefined }
export type Saving = 'saved' | 'saving' | 'refused' | 'silent'

type Work = { shot: Shot; view: View }

/** The shot on the Bench: what is set, what it gives, and its safe keeping. */
export function useBench(initial: ShotAnswer) {
  const [shot, setShot] = useState(initial.shot)
  const [kept, setKept] = useState(initial)
  const [answer, setAnswer] = useState<BenchAnswer>()
  const [frames] = useState(() => new Frames())
  const [view, setView] = useState<View>({ layers: 'both', crop: WHOLE, width: 640 })
  const [refusal, setRefusal] = useState<Problem>()
  const [saving, setSaving] = useState<Saving>('saved')
  const [conflict, setConflict] = useState<ShotAnswer>()

  // What timers and other callbacks see: state of the last render would be too old while a key is held.
  const now = useRef({
    shot,
    kept,
    view,
    refused: false,
    conflict: false,
  })
  const timer = useRef<number>(undefined)
  // The shot whose look is held: it stands while controls follow, so that nothing creeps.
  const base = useRef(initial.shot)
  const [held, setHeld] = useState<HoldAnswer>()

  const compute = useMemo(
    () =>
      new Latest<Work>(async ({ shot, view }) => {
        try {
          const [answer, frame] = await Promise.all([
            answered(client.POST('/api/bench', { body: shot })),
            picture(soloed(shot, view.solo), view.width, view.layers, view.crop),
          ])
          now.current.refused = false
          frames.show(frame)
          // The picture first; figures and sentences follow in the next breath.
          startTransition(() => {
            setAnswer(answer)
            setRefusal(undefined)
            setSaving((saving) => (saving === 'silent' || saving === 'refused' ? 'saved' : saving))
          })
        } catch (error) {
          if (error instanceof Refusal) {
            now.current.refused = true
            setRefusal(error.problem)
            setSaving('refused')
          } else {
            setSaving('silent')
            window.setTimeout(() => compute.run({ shot: now.current.shot, view: now.current.view }), RETRY_MS)
          }
        }
      }),
    [frames],
  )

  const recompute = useCallback(
    () => compute.run({ shot: now.current.shot, view: now.current.view }),
    [compute],
  )

  const adopt = useCallback(
    (answer: ShotAnswer) => {
      now.current.kept = answer
      now.current.shot = answer.shot
      base.current = answer.shot
      setHeld(undefined)
      now.current.conflict = false
      setKept(answer)
      setShot(answer.shot)
      setConflict(undefined)
      setSaving('saved')
      recompute()
    },
    [recompute],
  )

  // Saves and steps wait for each other: each starts from the version that the one before it left.
  const line = useRef<Promise<void>>(Promise.resolve())
  const inTurn = useCallback((task: () => Promise<void>) => {
    line.current = line.current.then(task)
    return line.current
  }, [])

  /** Says what came of a request that failed; `again` is tried when the program did not answer. */
  const failed = useCallback((error: unknown, again: () => void) => {
    if (error instanceof Refusal && error.problem.current) {
      now.current.conflict = true
      setConflict(error.problem.current)
    } else if (error instanceof Refusal) {
      setRefusal(error.problem)
      setSaving('refused')
    } else {
      setSaving('silent')
      timer.current = window.setTimeout(again, RETRY_MS)
    }
  }, [])

  const put = useCallback(async () => {
    const { shot, kept, conflict } = now.current
    if (conflict || shot === kept.shot) return
    const answer = await answered(
      client.PUT('/api/shots/{id}', {
        params: { path: { id: kept.id }, header: { 'If-Match': `"${kept.version}"` } },
        body: shot,
      }),
    )
    // Later changes may have been made meanwhile; they stay, on top of the new version.
    now.current.kept = { ...answer, shot }
    setKept(now.current.kept)
    setSaving(now.current.shot === shot ? 'saved' : 'saving')
  }, [])

  const save = useCallback(
    (): Promise<void> => inTurn(() => put().catch((error: unknown) => failed(error, () => void save()))),
    [inTurn, put, failed],
  )

  /** Everything pending is on the disk, or cannot be. */
  const settled = useCallback(() => {
    window.clearTimeout(timer.current)
    return save()
  }, [save])

  const enter = useCallback(
    (next: Shot) => {
      frames.keep()
      now.current.shot = next
      setShot(next)
      setSaving('saving')
      recompute()
      window.clearTimeout(timer.current)
      timer.current = window.setTimeout(() => void save(), SAVE_AFTER_MS)
    },
    [frames, recompute, save],
  )

  /** Changes anything; the look that is held is then the new one. */
  const change = useCallback(
    (to: Shot | ((shot: Shot) => Shot)) => {
      const next = typeof to === 'function' ? to(now.current.shot) : to
      base.current = next
      setHeld(undefined)
      enter(next)
    },
    [enter],
  )

  const hold = useMemo(
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
    [enter],
  )

  /** Turns one control, or the light itself; what is locked stays, and the other controls follow. */
  const turn = useCallback(
    (turned: Held | undefined, to: Shot, light?: number) => {
      if (!to.hold?.length) return change(to)
      enter(to)
      hold.run({ shot: to, turned, light })
    },
    [change, enter, hold],
  )

  const look = useCallback(
    (to: Partial<View>) => {
      now.current.view = { ...now.current.view, ...to }
      setView(now.current.view)
      recompute()
    },
    [recompute],
  )

  /** One revision back or forth, after what is pending has been saved. */
  const step = useCallback(
    (way: 'undo' | 'redo') => {
      window.clearTimeout(timer.current)
      return inTurn(async () => {
        // What was refused was never saved: the way back is to what was.
        if (now.current.refused) return adopt(now.current.kept)
        try {
          await put()
          const { id, version } = now.current.kept
          const params = { path: { id }, header: { 'If-Match': `"${version}"` } }
          adopt(
            await answered(
              way === 'undo'
                ? client.POST('/api/shots/{id}/undo', { params })
                : client.POST('/api/shots/{id}/redo', { params }),
            ),
          )
        } catch (error) {
          // At the end of the chain there is nothing to do and nothing to say.
          if (!(error instanceof Refusal) || error.problem.current) failed(error, () => void save())
        }
      })
    },
    [adopt, failed, inTurn, put, save],
  )

  /** After a conflict: mine on top of theirs, or theirs. Both stay in the history. */
  const settle = useCallback(
    (keep: 'mine' | 'theirs') => {
      const theirs = conflict
      if (!theirs) return
      if (keep === 'theirs') {
        adopt(theirs)
        return
      }
      now.current.kept = theirs
      now.current.conflict = false
      setKept(theirs)
      setConflict(undefined)
      void save()
    },
    [adopt, conflict, save],
  )

  useEffect(() => {
    recompute()
    // A page that is closed or hidden has nobody to wait for: the last change goes out at once.
    const flush = () => {
      const { shot, kept, refused, conflict } = now.current
      if (shot === kept.shot || refused || conflict) return
      void fetch(`/api/shots/${kept.id}`, {
        method: 'PUT',
        keepalive: true,
        headers: { 'content-type': 'application/json', 'if-match': `"${kept.version}"` },
        body: JSON.stringify(shot),
      })
    }
    window.addEventListener('pagehide', flush)
    return () => {
      window.removeEventListener('pagehide', flush)
      window.clearTimeout(timer.current)
      flush()
    }
  }, [recompute])

  return {
    shot,
    kept,
    answer,
    frames,
    view,
    refusal,
    saving,
    conflict,
    held,
    change,
    turn,
    look,
    step,
    settle,
    settled,
    adopt,
  }
}

export type BenchState = ReturnType<typeof useBench>
