import type { FlashUnit, Sheet } from '../api/client'

/** A unit in the comparison; the first is the one in hand. */
export type Lane = { unit: FlashUnit; sheet: Sheet }

/** The step of a dial nearest to a power, in stops. */
export function nearest<T extends { power: number }>(dial: T[], power: number): T {
  return dial.reduce((best, step) =>
    Math.abs(Math.log(step.power / power)) < Math.abs(Math.log(best.power / power)) ? step : best,
  )
}
