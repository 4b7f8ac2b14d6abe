import type { Rung } from '../api/client'

export const WIDTH = 244
/** Where it has no other. */
export const HEIGHT = 356
export const TOP = 14
export const FOOT = 10
export const AXIS = 52
export const LABELS = 76
export const ROW = 25
/** A label that stands farther from its rung than this lies about it; what is set from here may stand a little farther. */
export const ASTRAY = [48, 80]
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

/** What stands close together under one label, so many at least; what is kept has its own. */
function clustered(rungs: Rung[], keeps: (rung: Rung) => boolean, fewest: number): Label[] {
  const labels: Label[] = []
  let open: Label | undefined
  for (const rung of rungs) {
    if (keeps(rung)) labels.push({ rungs: [rung] })
    else if (open && open.rungs[0]!.stops! - rung.stops! <= CLOSE) open.rungs.push(rung)
    else labels.push((open = { rungs: [rung] }))
  }
  return labels.flatMap((label) =>
    label.rungs.length < fewest ? label.rungs.map((rung) => ({ rungs: [rung] })) : [label],
  )
}

/** Ways to label rungs, the fullest first: each its own; what nobody sets from here together; all but what leads. */
export const labelled = (rungs: Rung[]): Label[][] => [
  rungs.map((rung) => ({ rungs: [rung] })),
  clustered(rungs, (rung) => rung.target_pointer != null, FEWEST),
  clustered(rungs, (rung) => ['subject', 'key'].includes(rung.id) || rung.target_stops != null, 2),
]
