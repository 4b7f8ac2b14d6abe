import type { Shot } from '../api/client'
import { withValue } from '../api/pointer'

type Turned = { pointer: string; value: unknown }

/** The shot with what the program says has to be turned. */
export const applied = (shot: Shot, changes: Turned[]): Shot =>
  changes.reduce((to, { pointer, value }) => withValue(to, pointer, value), shot)

/** What has to be turned, as one says it. */
export const saidTogether = (changes: { words: string }[]): string =>
  changes.length === 0 ? 'nothing to turn' : changes.map(({ words }) => words).join(' · ')
