import { useEffect, useRef } from 'react'

/** Long enough to read two lines, in ms. */
const STAYS_MS = 9000

/** A notice that asks for nothing goes by itself; `what` is nothing where there is none, or where it waits for somebody. */
export function useGoes(what: unknown, close: () => void) {
  const latest = useRef(close)
  useEffect(() => {
    latest.current = close
  })
  useEffect(() => {
    if (!what) return
    const timer = window.setTimeout(() => latest.current(), STAYS_MS)
    return () => window.clearTimeout(timer)
  }, [what])
}
