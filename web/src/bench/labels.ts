import type { Rung } from '../api/client'

export const WIDTH = 244
/** Where it has no other. */
export const HEIGHT = 356
export const TOP = 14
export const FOOT = 10
export const AXIS = 52
export const LABELS = 76
export const ROW = 25
/** A label that stands farther from its rung than this lies about it: then what is close together is one label. */
export const ASTRAY = 48
/** How close, in stops, and how many. */
const CLOSE = 0.5
const FEWEST = 3

/** Places labels at their rungs, pushed apart so that none covers another, top to bottom and back from the end. */
export function spread(wanted: number[], row: number, bottom: number): number[] {
  const placed = [...wanted]
  for (let k = 1; k < placed.length; k++) placed[k] = Math.max(placed[k]!, placed[k - 1]! + row)
  let limit = bottom - row
  for (let k = placed.length - 1; k >= 0; k--) {
    placed[k] = Math.min(placed[k]!, limit)
    limit = placed[k]! - row
  }
  return placed
}

/** Rungs that share one label, the first of them where it stands. */
export type Label = { rungs: Rung[] }

/** What nobody sets from here and what stands close together under one label; what is set keeps its own. */
export function clustered(rungs: Rung[]): Label[] {
  const labels: Label[] = []
  let open: Label | undefined
  for (const rung of rungs) {
    if (rung.target_pointer) labels.push({ rungs: [rung] })
    else if (open && open.rungs[0]!.stops! - rung.stops! <= CLOSE) open.rungs.push(rung)
    else labels.push((open = { rungs: [rung] }))
  }
  return labels.flatMap((label) =>
    label.rungs.length < FEWEST ? label.rungs.map((rung) => ({ rungs: [rung] })) : [label],
  )
}
