import type { FlashUnit } from '../api/client'
import { choices } from '../words/choices'
import { maybe, number, type Field, type Words } from './field'

type Control = FlashUnit['control']
type Way = Control['way']

const at = (name: string) => `/control/${name}`
const decay = number(at('decay_ms'), 'Decay at full, τd', ' ms')
const rise = maybe(at('rise_ms'), 'Rise, τr', ' ms')
const gamma: Field = {
  ...number(at('gamma'), 'Exponent γ'),
  hint: '0 to 0.3: how much longer at less charge',
}

/** Every way of making less light: what it is called, what it starts from, and its figures. */
const CONTROLS: { [W in Way]: { words: string; fresh: Extract<Control, { way: W }>; fields: Field[] } } = {
  quenched: {
    words: 'Quenched: a switch cuts the discharge',
    fresh: { way: 'quenched', decay_ms: 1 },
    fields: [decay, rise, maybe(at('fall_ms'), 'Fall after the cut, τf', ' ms')],
  },
  charge_voltage: {
    words: 'Charge voltage: less charge',
    fresh: { way: 'charge_voltage', decay_ms: 1, gamma: 0.15 },
    fields: [decay, rise, gamma],
  },
  switched_banks: {
    words: 'Switched banks: fewer, then less charge',
    fresh: { way: 'switched_banks', decay_ms: 1, gamma: 0.15, banks: 4 },
    fields: [decay, rise, gamma, number(at('banks'), 'Banks')],
  },
  train: {
    words: 'Train: fewer short pulses',
    fresh: { way: 'train', decay_ms: 0.05, period_ms: 2, pulses: 8 },
    fields: [
      number(at('decay_ms'), 'Decay of a pulse, τd', ' ms'),
      maybe(at('rise_ms'), 'Rise of a pulse, τr', ' ms'),
      number(at('period_ms'), 'From start to start', ' ms'),
      number(at('pulses'), 'Pulses at full'),
    ],
  },
  table: {
    words: 'Table of durations',
    fresh: { way: 'table', rows: [{ power: 1, t05_ms: 0.8, t01_ms: 2.2 }] },
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

export const freshControl = (way: string): Control => CONTROLS[way as Way].fresh

export const controlFields = (of: Control): Field[] => CONTROLS[of.way].fields
