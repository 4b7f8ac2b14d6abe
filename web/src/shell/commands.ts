/** Keys by screen, as they are listed and as they can be run by name. */
export type Keys = { title: string; where?: 'bench' | 'match' | 'kit'; keys: [string, string][] }

export const KEYS: Keys[] = [
  {
    title: 'Controls',
    where: 'bench',
    keys: [
      ['A', 'Aperture'],
      ['S', 'Shutter'],
      ['I', 'ISO'],
      ['N', 'Filter (ND)'],
      ['F', 'Focal length'],
      ['G', 'Subject distance'],
      ['P', 'Flash power'],
      ['D', 'Flash distance'],
      ['Y', 'Sync'],
      [', .', 'Light before, light after'],
      ['Q', 'The light in hand alone'],
      ['X', 'Mute it'],
      ['← →', 'One click'],
      ['PgUp PgDn', 'Three clicks'],
      ['Home End', 'To the end of the range'],
      ['Space', 'Lock it, or let it follow'],
      ['W', 'Other settings, the same light'],
      ['R', 'Three ways under the sun'],
      ['U', 'Drag the shutter'],
      ['Z', 'Groups and depth'],
      ['O', 'The other sky'],
      ['C', 'Match: which of my units can do this'],
    ],
  },
  {
    title: 'Looking',
    where: 'bench',
    keys: [
      ['1 2 3', 'Both, flash only, ambient only'],
      ['L', 'Loupe to camera pixels; drag to move'],
      ['0', 'The whole frame'],
      ['B', 'Before the last change'],
      ['V', 'Versions, side by side'],
      ['M', 'Moment: + − zoom, ← → move, Enter pulse, 0 all'],
      ['↑ ↓', 'On a rung of the ladder: set its target'],
    ],
  },
  {
    title: 'Match',
    where: 'match',
    keys: [
      ['1 2 3', 'The key, all lights, the whole job'],
      ['↑ ↓', 'The set-up before, after; on the units: another unit'],
      ['← →', 'On the units: one step of its power'],
      ['Enter', 'Set the shot so, or let it give'],
      ['P', 'Pin the set-up'],
      ['S', 'Pinned ones side by side'],
      ['E', 'From joules to pixels'],
    ],
  },
  {
    title: 'Kit',
    where: 'kit',
    keys: [
      ['/', 'Find a thing'],
      ['E', 'Change its figures'],
      ['N', 'A new one'],
      ['← →', 'On the curves: one step of the dial'],
    ],
  },
  {
    title: 'Anywhere',
    keys: [
      ['Ctrl+Z', 'Undo'],
      ['Ctrl+Shift+Z', 'Redo'],
      ['Ctrl+K', 'Find a shot, a thing or a command'],
      ['Esc', 'Close what is open'],
      ['H', 'All shots'],
      ['K', 'Kit'],
      ['T', 'Set or Daylight'],
      ['?', 'These keys'],
    ],
  },
]

/** Something that can be run by its name. */
export type Command = { name: string; hint: string; run: () => void }

/** Presses a key as if it had been pressed on the page. */
function press(key: string) {
  const [last = '', ...mods] = key.split('+').reverse()
  const init = { key: last.length === 1 ? last.toLowerCase() : last, bubbles: true }
  window.dispatchEvent(
    new KeyboardEvent('keydown', {
      ...init,
      ctrlKey: mods.includes('Ctrl'),
      shiftKey: mods.includes('Shift'),
    }),
  )
}

/** Commands of the screen that is open: every key that does something at once. */
export function commandsOf(path: string, search: string): Command[] {
  const bench = new URLSearchParams(search).has('match') ? 'match' : 'bench'
  const here = path.startsWith('/shots/') ? bench : path.startsWith('/kit') ? 'kit' : undefined
  return KEYS.filter(({ where }) => !where || where === here).flatMap(({ keys }) =>
    keys
      .filter(([key]) => /^(.|Ctrl\+(Shift\+)?Z)$/.test(key) && key !== '/')
      .map(([key, name]) => ({ name, hint: key, run: () => press(key) })),
  )
}
