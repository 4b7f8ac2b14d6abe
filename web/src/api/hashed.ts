import { hashKey } from '@tanstack/react-query'

/** Keys that were written down already: a shot is asked about by many, at every render, and is never changed in place. */
const written = new WeakMap<object, string>()

/** What a question is known by. */
export function hashed(key: readonly unknown[]): string {
  return key.map(ofOne).join()
}

function ofOne(part: unknown): string {
  if (typeof part !== 'object' || part === null) return hashKey([part])
  const before = written.get(part)
  if (before !== undefined) return before
  const now = hashKey([part])
  written.set(part, now)
  return now
}
