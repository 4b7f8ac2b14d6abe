import { useEffect, useRef } from 'react'
import { COMMANDS, type CommandId, type Told } from './list'

/** What commands do on a screen, as far as they can be run there now. */
export type Handlers = Partial<Record<CommandId, () => void>>

/** The screens that are open; the one that was opened last is asked first. */
const open: { current: Handlers }[] = []

const typing = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName))

/** A key as the list names it: a letter as typed, with `mod+` and `shift+` before it. */
function nameOf(event: KeyboardEvent): string {
  const key = event.key.length === 1 ? event.key.toLowerCase() : event.key
  const mod = event.ctrlKey || event.metaKey
  // Shift is part of a sign such as "?", and a modifier of a letter.
  const shift = event.shiftKey && mod
  return `${mod ? 'mod+' : ''}${shift ? 'shift+' : ''}${key}`
}

/** What a command would do now. */
function handlerOf(id: CommandId): (() => void) | undefined {
  return open.findLast(({ current }) => current[id])?.current[id]
}

/** The commands that can be run now, in the order of the list. */
export function commandsNow(): { id: CommandId; told: Told; run: () => void }[] {
  return (Object.keys(COMMANDS) as CommandId[]).flatMap((id) => {
    const run = handlerOf(id)
    return run ? [{ id, told: COMMANDS[id], run }] : []
  })
}

/** Says what commands do while this is on screen. */
export function useCommands(handlers: Handlers): void {
  const latest = useRef(handlers)
  useEffect(() => {
    latest.current = handlers
  })
  useEffect(() => {
    open.push(latest)
    return () => {
      open.splice(open.indexOf(latest), 1)
    }
  }, [])
}

/** Keys that no field takes for itself: undo, for one, belongs to what is being typed. */
const WHILE_TYPING = [COMMANDS.find.key] as readonly string[]

/** Listens to the keys of all commands anywhere on the page; while something is typed to a few, in a dialog to none. */
export function useCommandKeys(): void {
  useEffect(() => {
    // A dialog that this key closes is gone by the time the key comes here: who was first is noted on the way in.
    let inDialog = false
    const note = () => {
      inDialog = !!document.querySelector('[role="dialog"]')
    }
    const listen = (event: KeyboardEvent) => {
      if (event.defaultPrevented || event.altKey || inDialog) return
      const key = nameOf(event)
      if (typing(event.target) && !WHILE_TYPING.includes(key)) return
      const found = commandsNow().find(({ told }) => told.key === key || told.also === key)
      if (!found) return
      event.preventDefault()
      found.run()
    }
    window.addEventListener('keydown', note, true)
    window.addEventListener('keydown', listen)
    return () => {
      window.removeEventListener('keydown', note, true)
      window.removeEventListener('keydown', listen)
    }
  }, [])
}
