import { useState } from 'react'

/**
 * A thing of several figures that is one when all of them are known. Until then what was typed waits here, and nothing is
 * made up for the rest; a figure that is taken away takes the thing down.
 */
export function useWhole<T extends object>(
  whole: T | null | undefined,
  names: readonly (keyof T)[],
  onChange: (whole: T | undefined) => void,
) {
  const [half, setHalf] = useState<Partial<T>>({})
  const known: Partial<T> = whole ?? half
  const put = (change: Partial<T>) => {
    const now = { ...known, ...change }
    setHalf(now)
    if (names.every((name) => now[name] != null)) onChange(now as T)
    else if (whole) onChange(undefined)
  }
  return { known, put }
}
