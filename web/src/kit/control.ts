import type { FlashUnit } from '../api/client'
import { choices } from '../words/choices'
import { maybe, number, symbol, type Field, type Words } from './field'

/** As it is entered: figures may be missing still. */
type Control = FlashUnit['control']
type Way = Control['way']

const at = (name: string) => `/control/${name}`
/** One of the three is enough. */
const full = [
  { ...maybe(at('t05_ms'), 't0.5 at full', ' ms'), hint: 'as leaflets print it' },
  { ...maybe(at('t01_ms'), 'or t0.1 at full', ' ms') },
  symbol('τd', maybe(at('decay_ms'), 'or time to fall to 37 %', ' ms')),
]
const rise = symbol('τr', maybe(at('rise_ms'), 'Rise', ' ms'))
const gamma: Field = {
  ...symbol('γ, the exponent: times are longer by power^−γ', number(at('gamma'), 'Longer at less charge')),
  hint: '0 not at all, to 0.3',
}

/** Every way of making less light: what it is called, what it starts from, and its figures. */
const CONTROLS: {
  [W in Way]: { words: string; fresh: { way: W; rows?: { power: number }[] }; fields: Field[] }
} = {
  quenched: {
    words: 'Quenched: a switch cuts the discharge',
    fresh: { way: 'quenched' },
    fields: [...full, rise, symbol('τf', maybe(at('fall_ms'), 'Fall after the cut', ' ms'))],
  },
  charge_voltage: {
    words: 'Charge voltage: less charge',
    fresh: { way: 'charge_voltage' },
    fields: [...full, rise, gamma],
  },
  switched_banks: {
    words: 'Switched banks: fewer, then less charge',
    fresh: { way: 'switched_banks' },
    fields: [...full, rise, gamma, number(at('banks'), 'Banks')],
  },
  train: {
    words: 'Train: fewer short pulses',
    fresh: { way: 'train' },
    fields: [
      symbol('τd', number(at('decay_ms'), 'A pulse falls to 37 % in', ' ms')),
      symbol('τr', maybe(at('rise_ms'), 'Rise of a pulse', ' ms')),
      number(at('period_ms'), 'From start to start', ' ms'),
      number(at('pulses'), 'Pulses at full'),
    ],
  },
  table: {
    words: 'Table of durations',
    fresh: { way: 'table', rows: [{ power: 1 }] },
    fields: [
      {
        pointer: at('discharge'),
        label: 'A pulse ends because',
        as: 'word',
        optional: true,
        words: choices({ cut: 'a switch cuts it', whole: 'the store runs out' }),
      },
      { pointer: at('rows'), label: 'Powers', as: 'rows' },
    ],
  },
}

export const WAYS_TO_CHOOSE: Words = Object.entries(CONTROLS).map(([value, { words }]) => ({
  value,
  label: words,
}))

export const freshControl = (way: string): unknown => CONTROLS[way as Way].fresh

export const controlFields = (of: Control | undefined): Field[] => (of ? CONTROLS[of.way].fields : [])
