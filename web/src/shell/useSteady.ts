import { useCallback, useLayoutEffect, useRef } from 'react'

/** One function for as long as the screen lives, that does what the last render has it do: what is given it draws no more. */
export function useSteady<Given extends unknown[], Gives>(does: (...given: Given) => Gives) {
  const latest = useRef(does)
  useLayoutEffect(() => {
    latest.current = does
  })
  return useCallback((...given: Given) => latest.current(...given), [])
}
