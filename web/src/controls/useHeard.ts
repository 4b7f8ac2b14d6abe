import { useEffect, useRef, useState } from 'react'
import { flushSync } from 'react-dom'
import { reading } from './reading'

/** A pause in typing after which it is worth asking, in ms. */
const PAUSE = 80

/** What was made of a text, and in which words. */
export type Heard<T> = { value: T; words?: string | undefined }

type Does<T> = {
  /** What a text is; at once where nobody has to be asked, a sentence in an error where it is nothing. */
  ask: (text: string) => Heard<T> | Promise<Heard<T>>
  onTake: (value: T) => void
  /** What was typed is nothing: neither it nor its beginning is kept. */
  onRefuse?: () => void
}

/**
 * Something typed as it is said: what it was understood to be goes out after a pause, on Enter and on leaving, the last of several
 * askings counts, and what it cannot be stays to be seen.
 */
export function useHeard<T>({ ask, onTake, onRefuse }: Does<T>) {
  const [raw, setRaw] = useState<string>()
  const [told, setTold] = useState<{ words?: string | undefined; wrong?: string }>({})
  const asked = useRef(0)
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined)
  // What is edited may have changed elsewhere before an answer is here.
  const latest = useRef({ onTake, onRefuse })
  useEffect(() => {
    latest.current = { onTake, onRefuse }
  })

  const hear = ({ value, words }: Heard<T>) => {
    setTold({ words })
    latest.current.onTake(value)
  }
  /** Whether it was understood. */
  const read = async (text: string): Promise<boolean> => {
    const own = ++asked.current
    try {
      const heard = ask(text)
      if (!(heard instanceof Promise)) hear(heard)
      else {
        const answer = await heard
        if (own !== asked.current) return false
        flushSync(() => hear(answer))
      }
      return true
    } catch (failure) {
      if (own !== asked.current) return false
      flushSync(() => {
        setTold({ wrong: (failure as Error).message })
        latest.current.onRefuse?.()
      })
      return false
    }
  }
  const settle = (text: string) => {
    clearTimeout(timer.current)
    return reading(read(text))
  }
  /** Nothing typed any more: what is kept is shown. */
  const drop = () => {
    clearTimeout(timer.current)
    asked.current += 1
    setRaw(undefined)
    setTold({})
  }
  return {
    raw,
    ...told,
    drop,
    /** Typed; asked about after a pause, or at once. */
    type: (text: string, atOnce = false) => {
      setRaw(text)
      clearTimeout(timer.current)
      if (atOnce) void read(text)
      else timer.current = setTimeout(() => void reading(read(text)), PAUSE)
    },
    /** What Enter sends is what was typed last. */
    enter: () => raw !== undefined && void settle(raw),
    /** What was typed last is read, whoever is quicker; what it cannot be stays to be seen. */
    leave: () => {
      if (raw === undefined) return
      void settle(raw).then((understood) => {
        if (!understood) return
        setRaw(undefined)
        setTold({})
      })
    },
  }
}
