import { useEffect, useState } from 'react'
import {
  Silence,
  type MarkMap,
  type MatchAnswer,
  type MatchEvent,
  type Priority,
  type Shot,
  type Wish,
} from '../api/client'
import { hearLines } from '../api/lines'

/** Typed figures change letter by letter: a question waits this long for the next. */
const WAIT_MS = 60
/** Asks again when the program did not answer. */
const RETRY_MS = 1500

export type Search = {
  /** All that is asked, as the program reads it. */
  wish?: Wish
  /** Where every unit stands. */
  map?: MarkMap
  answer?: MatchAnswer
  progress?: { done: number; of: number; nearest: boolean }
  /** It was ended before it had an answer. */
  stopped?: boolean
  /** Why it cannot be asked. */
  refusal?: Error
  going: boolean
}

/** Asks the kit, and hears the answer line by line; a change of the shot ends the question before. */
export function useMatch(shot: Shot, priority: Priority) {
  const [search, setSearch] = useState<Search>({ going: true })
  const [again, setAgain] = useState(0)
  const [stopped, setStopped] = useState<AbortController>()
  useEffect(() => {
    const control = new AbortController()
    let left = false
    setStopped(control)
    setSearch(({ wish, map, answer }) => ({
      going: true,
      ...(wish && map && { wish, map }),
      ...(answer && { answer }),
    }))
    const timer = window.setTimeout(() => {
      hearLines<MatchEvent>('/api/match', { shot, priority }, control.signal, (event) => {
        if (left) return
        if (event.is === 'asked') setSearch((now) => ({ ...now, wish: event.wish, map: event.map }))
        else if (event.is === 'progress')
          setSearch((now) => ({
            ...now,
            progress: { ...event, nearest: event.nearest || (now.progress?.nearest ?? false) },
          }))
        else setSearch((now) => ({ wish: now.wish!, map: now.map!, answer: event.answer, going: false }))
      }).catch((error: unknown) => {
        // Another question has taken its place: what became of this one is of no interest.
        if (left) return
        setSearch(({ wish, map }) => ({
          going: false,
          ...(wish && map && { wish, map }),
          ...(control.signal.aborted ? { stopped: true } : { refusal: error as Error }),
        }))
        if (error instanceof Silence && !control.signal.aborted)
          window.setTimeout(() => !left && setAgain((count) => count + 1), RETRY_MS)
      })
    }, WAIT_MS)
    return () => {
      left = true
      window.clearTimeout(timer)
      control.abort()
    }
  }, [shot, priority, again])
  return { ...search, stop: () => stopped?.abort() }
}
