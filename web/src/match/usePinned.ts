import { useState } from 'react'
import type { MatchRow } from '../api/client'

const MOST_PINNED = 4

const same = (a: MatchRow, b: MatchRow) => JSON.stringify(a.setup) === JSON.stringify(b.setup)

/** Set-ups that are kept in sight, to be looked at side by side. */
export function usePinned() {
  const [pinned, setPinned] = useState<MatchRow[]>([])
  const has = (row: MatchRow) => pinned.some((one) => same(one, row))
  const pin = (row: MatchRow) =>
    setPinned((pinned) =>
      pinned.some((one) => same(one, row))
        ? pinned.filter((one) => !same(one, row))
        : [...pinned, row].slice(0, MOST_PINNED),
    )
  return { pinned, has, pin, full: pinned.length >= MOST_PINNED }
}
