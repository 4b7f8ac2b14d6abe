import { useCallback, useEffect, useRef, useState } from 'react'
import { answered, client, Refusal, type Problem, type Shot, type ShotAnswer } from '../api/client'
import { RETRY_MS, type Now, type Saving } from './now'

/** How long after the last change a shot is saved: a held key makes one revision, not fifty. */
const SAVE_AFTER_MS = 350

type Props = {
  now: Now
  initial: ShotAnswer
  say: (saving: Saving) => void
  onRefusal: (problem: Problem) => void
  /** Another version is on the Bench now. */
  onAdopted: (shot: Shot) => void
}

/** The safe keeping of what is set: saves, steps back and forth, and what to do when somebody else was there first. */
export function useSaving({ now, initial, say, onRefusal, onAdopted }: Props) {
  const [kept, setKept] = useState(initial)
  const [conflict, setConflict] = useState<ShotAnswer>()
  const timer = useRef<number>(undefined)

  const adopt = useCallback(
    (answer: ShotAnswer) => {
      now.current.kept = answer
      now.current.shot = answer.shot
      now.current.conflict = false
      now.current.refused = false
      setKept(answer)
      setConflict(undefined)
      say('saved')
      onAdopted(answer.shot)
    },
    [now, say, onAdopted],
  )

  // Saves and steps wait for each other: each starts from the version that the one before it left.
  const line = useRef<Promise<void>>(Promise.resolve())
  const inTurn = useCallback((task: () => Promise<void>) => {
    line.current = line.current.then(task)
    return line.current
  }, [])

  /** Says what came of a request that failed; `again` is tried when the program did not answer. */
  const failed = useCallback(
    (error: unknown, again: () => void) => {
      if (error instanceof Refusal && error.problem.current) {
        now.current.conflict = true
        setConflict(error.problem.current)
      } else if (error instanceof Refusal) {
        now.current.refused = true
        onRefusal(error.problem)
        say('refused')
      } else {
        say('silent')
        timer.current = window.setTimeout(again, RETRY_MS)
      }
    },
    [now, onRefusal, say],
  )

  const put = useCallback(async () => {
    // A turn and what followed it are one revision, however long it took.
    await now.current.followed
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
    if (now.current.shot === shot) now.current.refused = false
    say(now.current.shot === shot ? 'saved' : 'saving')
  }, [now, say])

  const save = useCallback(
    (): Promise<void> => inTurn(() => put().catch((error: unknown) => failed(error, () => void save()))),
    [inTurn, put, failed],
  )

  /** What is set will be saved, once nothing has changed for a moment. */
  const saveSoon = useCallback(() => {
    say('saving')
    window.clearTimeout(timer.current)
    timer.current = window.setTimeout(() => void save(), SAVE_AFTER_MS)
  }, [save, say])

  /** Everything pending is on the disk, or cannot be. */
  const settled = useCallback(() => {
    window.clearTimeout(timer.current)
    return save()
  }, [save])

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
          // What cannot be was never saved, whoever hears of it first: the way back is to what was.
          const { shot, kept } = now.current
          if (error instanceof Refusal && error.problem.status === 422 && shot !== kept.shot)
            return adopt(kept)
          // At the end of the chain there is nothing to do and nothing to say.
          if (!(error instanceof Refusal) || error.problem.current) failed(error, () => void save())
        }
      })
    },
    [adopt, failed, inTurn, now, put, save],
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
    [adopt, conflict, now, save],
  )

  useEffect(() => {
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
  }, [now])

  return { kept, conflict, adopt, saveSoon, settled, step, settle }
}
