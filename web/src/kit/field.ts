import type { FigureKind } from '../api/client'

export type Words = { value: string; label: string }[]

/** One figure of a thing and how it is entered. */
export type Field = {
  pointer: string
  label: string
  suffix?: string
  hint?: string
  /** What formulas call it, for whoever knows it by that. */
  symbol?: string
  kind?: FigureKind
} & (
  | {
      as:
        | 'text'
        | 'number'
        | 'maybe'
        | 'time'
        | 'maybe-time'
        | 'yes'
        | 'source'
        | 'rows'
        | 'battery'
        | 'leaflet'
        | 'corrections'
        | 'hue'
    }
  | { as: 'word'; words: Words; optional?: boolean; fresh?: (value: string) => unknown }
)
export type Group = { title: string; fields: Field[] }

export const number = (pointer: string, label: string, suffix?: string): Field => ({
  pointer,
  label,
  as: 'number',
  ...(suffix && { suffix }),
})
export const maybe = (pointer: string, label: string, suffix?: string): Field => ({
  pointer,
  label,
  as: 'maybe',
  ...(suffix && { suffix }),
})

export const symbol = (symbol: string, field: Field): Field => ({ ...field, symbol })

/** What has to be known before a thing can be kept. */
export const isNeeded = (field: Field): boolean =>
  field.as === 'number' ||
  field.as === 'text' ||
  field.as === 'time' ||
  (field.as === 'word' && !field.optional)
