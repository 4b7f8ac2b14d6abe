import type { FlashUnit, Kind, Sheet, Source } from '../api/client'

const WORDS: Record<Kind, { plural: string; one: string }> = {
  unit: { plural: 'Units', one: 'unit' },
  camera: { plural: 'Cameras', one: 'camera' },
  lens: { plural: 'Lenses', one: 'lens' },
  modifier: { plural: 'Modifiers', one: 'modifier' },
  filter: { plural: 'Gels, filters', one: 'filter' },
  trigger: { plural: 'Triggers', one: 'trigger' },
  battery: { plural: 'Batteries', one: 'battery' },
  lamp: { plural: 'Lamps', one: 'lamp' },
}

/** The kinds of things, in the order of their tabs. */
export const KINDS = (Object.keys(WORDS) as Kind[]).map((kind) => ({ kind, ...WORDS[kind] }))

export const UNIT_KINDS: Record<NonNullable<FlashUnit['kind']>, string> = {
  camera_top: 'camera-top',
  battery_head: 'battery head',
  mains_head: 'mains head',
  generator: 'generator',
}

export const BEHAVES: Record<NonNullable<NonNullable<Sheet['recordings']>['behaves_as']>, string> = {
  quenched: 'a unit that cuts its discharge',
  charge_voltage: 'a unit that charges less',
  switched_banks: 'a unit that switches banks',
}

/** Where a figure comes from, as it stands beside it. */
export function sourced(source: Source | undefined): string {
  if (!source) return 'published'
  const { origin, on, with: means } = source
  if (origin !== 'measured') return origin
  return ['measured', on && `on ${on}`, means && `with ${means}`].filter(Boolean).join(' ')
}

/** A figure in as few digits as are of use. */
export const figure = (value: number, digits = 3) =>
  value.toLocaleString('en', { maximumSignificantDigits: digits }).replace('-', '−')

export const share = (part: number) => `${(part * 100).toFixed(part < 0.1 ? 1 : 0)} %`

/** How far two figures lie apart: a share while it is small, a factor when it is not. */
export const apart = (part: number) => (part < 0.6 ? share(part) : `a factor of ${(1 + part).toFixed(1)}`)

/** Today, as recordings are dated. */
export function today(): string {
  const now = new Date()
  const two = (value: number) => String(value).padStart(2, '0')
  return `${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}`
}
