import type { Shot } from './client'

const isObject = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value)

/**
 * What somebody changed in a shot that meanwhile went on: what they changed is theirs, everything else as it is now. Lists
 * are gone through entry by entry; one that was made shorter is theirs.
 */
export function rebased(base: Shot, mine: Shot, now: Shot): Shot {
  return merged(base, mine, now) as Shot
}

function merged(base: unknown, mine: unknown, now: unknown): unknown {
  if (mine === base || now === mine) return now
  if (now === base) return mine
  if (isObject(base) && isObject(mine) && isObject(now)) {
    const all: Record<string, unknown> = {}
    for (const key of new Set([...Object.keys(now), ...Object.keys(mine)])) {
      const value = merged(base[key], mine[key], now[key])
      if (value !== undefined) all[key] = value
    }
    return all
  }
  if (Array.isArray(base) && Array.isArray(mine) && Array.isArray(now)) {
    if (base.length !== now.length || mine.length < base.length) return mine
    return mine.map((value, index) => (index < base.length ? merged(base[index], value, now[index]) : value))
  }
  return mine
}
