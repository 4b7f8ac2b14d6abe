/** The groups in which commands are told, in the order of the help. */
export const GROUPS = ['Controls', 'Looking', 'Match', 'Shots', 'Brief', 'Kit', 'Anywhere'] as const
export type Group = (typeof GROUPS)[number]

/** A command: where it is told, the key that runs it, and what it is called. */
export type Told = { group: Group; key: string; words: string; also?: string }

const of =
  (group: Group) =>
  (key: string, words: string, also?: string): Told => ({ group, key, words, ...(also && { also }) })
const control = of('Controls')
const looking = of('Looking')
const match = of('Match')
const shots = of('Shots')
const brief = of('Brief')
const kit = of('Kit')
const anywhere = of('Anywhere')

/** Every command there is. Keys, palette, help and tooltips are made from this list; what each does stands on its screen. */
export const COMMANDS = {
  aperture: control('a', 'Aperture'),
  shutter: control('s', 'Shutter'),
  iso: control('i', 'ISO'),
  filter: control('n', 'Filter (ND)'),
  focal: control('f', 'Focal length'),
  subject_distance: control('g', 'Subject distance'),
  power: control('p', 'Flash power'),
  flash_distance: control('d', 'Flash distance'),
  sync: control('y', 'Sync'),
  light_before: control(',', 'The light before'),
  light_after: control('.', 'The light after'),
  solo: control('q', 'The light in hand alone'),
  mute: control('x', 'Mute it'),
  ways: control('w', 'Other settings, the same light'),
  daylight: control('r', 'Three ways under the sun'),
  drag: control('u', 'Drag the shutter'),
  groups: control('z', 'Groups and depth'),
  sky: control('o', 'The other sky'),
  match: control('c', 'Match: which of my units can do this'),
  floor: control(';', 'Floor: the set from above and from the side'),

  both: looking('1', 'Flash and ambient'),
  flash: looking('2', 'Flash only'),
  ambient: looking('3', 'Ambient only'),
  loupe: looking('l', 'Loupe to camera pixels; drag to move'),
  whole: looking('0', 'The whole frame'),
  before: looking('b', 'Before the last change'),
  versions: looking('v', 'Versions, side by side'),
  stage: looking('e', 'Who and what stands in the frame'),
  in_time: looking('j', 'Movement in time, the peak, the camera’s own way'),
  moment: looking('m', 'Moment'),

  match_key: match('1', 'For the key'),
  match_lights: match('2', 'For all lights'),
  match_job: match('3', 'For the whole job'),
  setup_before: match('ArrowUp', 'The set-up before'),
  setup_after: match('ArrowDown', 'The set-up after'),
  set_so: match('Enter', 'Set the shot so, or let it give'),
  pin: match('p', 'Pin the set-up'),
  side_by_side: match('s', 'Pinned ones side by side'),
  explain: match('e', 'From joules to pixels'),
  to_bench: match('Escape', 'Back to the Bench', 'c'),

  new_shot: shots('n', 'A new shot: what happens?'),

  to_the_bench: brief('Enter', 'To the Bench with it'),
  leave_brief: brief('Escape', 'Back to all shots'),

  find_thing: kit('/', 'Find a thing'),
  change_thing: kit('e', 'Change its figures'),
  new_thing: kit('n', 'A new one'),

  undo: anywhere('mod+z', 'Undo'),
  redo: anywhere('mod+shift+z', 'Redo', 'mod+y'),
  find: anywhere('mod+k', 'Find a shot, a thing or a command'),
  all_shots: anywhere('h', 'All shots'),
  kit: anywhere('k', 'Kit'),
  copies: anywhere('', 'Copies of everything'),
  preferences: anywhere('', 'Preferences'),
  theme: anywhere('t', 'Set or Daylight'),
  help: anywhere('?', 'These keys'),
} as const satisfies Record<string, Told>
export type CommandId = keyof typeof COMMANDS

/** Keys of the mark that is in focus, told in the help beside the commands. */
export const ON_A_MARK: { group: Group; keys: string; words: string }[] = [
  { group: 'Controls', keys: '← →', words: 'One click' },
  { group: 'Controls', keys: 'PgUp PgDn', words: 'Three clicks' },
  { group: 'Controls', keys: 'Home End', words: 'To the end of the range' },
  { group: 'Controls', keys: '0 … 9 ↵', words: 'Type a figure: 1/125, 2.8, 6 ft 6, ND 0.9' },
  { group: 'Controls', keys: 'Space', words: 'Lock it, or let it follow' },
  { group: 'Looking', keys: '+ − ← →', words: 'On the moment: zoom and move; Enter pulse, 0 all' },
  { group: 'Looking', keys: '↑ ↓', words: 'On a rung of the ladder: set its target' },
  { group: 'Match', keys: '↑ ↓ ← →', words: 'On the units: another one; one step of its power' },
  { group: 'Kit', keys: '← →', words: 'On the curves: one step of the dial' },
  { group: 'Kit', keys: 'Ctrl V', words: 'Take in a table of units, copied from a spreadsheet' },
  { group: 'Anywhere', keys: 'Esc', words: 'Close what is open' },
]

const NAMES: Record<string, string> = {
  ArrowUp: '↑',
  ArrowDown: '↓',
  Enter: '↵',
  Escape: 'Esc',
  mod: 'Ctrl',
  shift: 'Shift',
}

/** The key of a command as it is written on it. */
export const keyOf = (id: CommandId): string =>
  COMMANDS[id].key
    .split('+')
    .map((part) => NAMES[part] ?? part.toUpperCase())
    .join('+')

/** What a tooltip says of a command: some words and its key. */
export const withKey = (id: CommandId, words: string = COMMANDS[id].words): string =>
  `${words} · ${keyOf(id)}`
