import { useEffect, useRef } from 'react'

/** Keys by name: a letter as typed, with `mod+` and `shift+` before it. */
export type Keys = Record<string, () => void>

const typing = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName))

function nameOf(event: KeyboardEvent): string {
  const key = event.key.length === 1 ? event.key.toLowerCase() : event.key
  const mod = event.ctrlKey || event.metaKey
  // Shift is part of a sign such as "?", and a modifier of a letter.
  const shift = event.shiftKey && mod
  return `${mod ? 'mod+' : ''}${shift ? 'shift+' : ''}${key}`
}

/** Listens to keys anywhere on the page, except while something is typed or a dialog is open. */
export function useKeys(keys: Keys): void {
  const latest = useRef(keys)
  useEffect(() => {
    latest.current = keys
  })
  useEffect(() => {
    // A dialog that this key closes is gone by the time the key comes here: who was first is noted on the way in.
    let inDialog = false
    const note = () => {
      inDialog = !!document.querySelector('[role="dialog"]')
    }
    const listen = (event: KeyboardEvent) => {
      if (event.defaultPrevented || event.altKey || typing(event.target) || inDialog) return
      const action = latest.current[nameOf(event)]
      if (!action) return
      event.preventDefault()
      action()
    }
    window.addEventListener('keydown', note, true)
    window.addEventListener('keydown', listen)
    return () => {
      window.removeEventListener('keydown', note, true)
      window.removeEventListener('keydown', listen)
    }
  }, [])
}
