import type { FlashUnit, Kind, Sheet, Source } from '../api/client'

export const KINDS: { kind: Kind; plural: string; one: string }[] = [
  { kind: 'unit', plural: 'Units', one: 'unit' },
  { kind: 'camera', plural: 'Cameras', one: 'camera' },
  { kind: 'lens', plural: 'Lenses', one: 'lens' },
  { kind: 'modifier', plural: 'Modifiers', one: 'modifier' },
  { kind: 'filter', plural: 'Gels, filters', one: 'filter' },
  { kind: 'trigger', plural: 'Triggers', one: 'trigger' },
  { kind: 'battery', plural: 'Batteries', one: 'battery' },
  { kind: 'lamp', plural: 'Lamps', one: 'lamp' },
]

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
