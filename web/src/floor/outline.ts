import type { Shot } from '../api/client'

export type Area = NonNullable<Shot['area']>
/** To the right of the mark, away from the camera. */
export type Place = readonly [number, number]

/** An area with these corners: the rectangle around them, and what of its width and depth each stands at. */
export function areaOf(area: Area, corners: Place[]): Area {
  const [xs, ys] = [corners.map(([x]) => x), corners.map(([, y]) => y)]
  const [left_m, right_m] = [Math.min(...xs), Math.max(...xs)]
  const [near_m, far_m] = [Math.min(...ys), Math.max(...ys)]
  const share = (at: number, from: number, to: number) => (to > from ? (at - from) / (to - from) : 0)
  return {
    ...area,
    left_m,
    right_m,
    near_m,
    far_m,
    corners: corners.map(([x, y]) => [share(x, left_m, right_m), share(y, near_m, far_m)]),
  }
}

/** The rectangle that it is an outline in. */
export const rectangle = (area: Area): Area => ({ ...area, corners: [] })
