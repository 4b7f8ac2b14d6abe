import type { FigureKind } from '../api/client'
import { otherwise } from '../words/preferred'

export type Counted = { kind: FigureKind; unit: string }

/** How a figure is written and read here: in which unit, and how to go to the program's and back. */
export function inOwnUnit(suffix = '') {
  const of = counted(suffix)
  const own = otherwise(suffix)
  const per = own?.per ?? 1
  return {
    kind: of.kind,
    unit: own?.unit ?? of.unit,
    suffix: own?.suffix ?? suffix,
    shown: (value: number | undefined) => (value === undefined || per === 1 ? value : value / per),
    kept: (value: number) => (per === 1 ? value : value * per),
    // What comes of another unit has digits that nobody asked for.
    ...(own && { decimals: 2 }),
  }
}

/** What a figure is of, by the unit that stands behind it in its field. */
const BY_SUFFIX: Record<string, Counted> = {
  '': { kind: 'number', unit: '' },
  ' m': { kind: 'length', unit: 'm' },
  ' m, ISO 100': { kind: 'length', unit: 'm' },
  ' m behind': { kind: 'length', unit: 'm' },
  ' cm': { kind: 'length', unit: 'cm' },
  ' mm': { kind: 'length', unit: 'mm' },
  ' m/s': { kind: 'speed', unit: 'm/s' },
  ' s': { kind: 'time', unit: 's' },
  ' ms': { kind: 'time', unit: 'ms' },
  ' st': { kind: 'stops', unit: 'stops' },
  ' stops': { kind: 'stops', unit: 'stops' },
  '°': { kind: 'angle', unit: '°' },
  ' °/s': { kind: 'turn_rate', unit: '°/s' },
  ' K': { kind: 'kelvin', unit: 'k' },
  ' mired': { kind: 'mired', unit: 'mired' },
  ' lx': { kind: 'lux', unit: 'lx' },
  ' lx·s': { kind: 'exposure', unit: 'lx·s' },
  ' J': { kind: 'energy', unit: 'j' },
  ' W': { kind: 'watts', unit: 'w' },
  ' Wh': { kind: 'charge', unit: 'wh' },
  ' kg': { kind: 'mass', unit: 'kg' },
  ' a second': { kind: 'rate', unit: '/s' },
  ' of frame': { kind: 'share', unit: '' },
  ' of the frame': { kind: 'share', unit: '' },
  ' of it': { kind: 'share', unit: '' },
  ' of full': { kind: 'power', unit: '' },
}

/** A suffix that is not in the list counts things. */
const counted = (suffix = ''): Counted => BY_SUFFIX[suffix] ?? { kind: 'number', unit: '' }
