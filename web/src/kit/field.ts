export type Words = { value: string; label: string }[]

/** One figure of a thing and how it is entered. */
export type Field = { pointer: string; label: string; suffix?: string; hint?: string } & (
  | { as: 'text' | 'number' | 'maybe' | 'maybe-text' | 'yes' | 'source' | 'rows' | 'battery' | 'leaflet' }
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
