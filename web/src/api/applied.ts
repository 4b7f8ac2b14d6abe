import type { Shot } from './client'
import { withValue } from './pointer'

type Turned = { pointer: string; value: unknown }

/** The shot with what the program says has to be turned. */
export const applied = (shot: Shot, changes: Turned[]): Shot =>
  changes.reduce((to, { pointer, value }) => withValue(to, pointer, value), shot)
