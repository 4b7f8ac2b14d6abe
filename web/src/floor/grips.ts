import type { FloorAnswer, Shot } from '../api/client'
import { length } from '../words/figures'
import { areaOf, type Place } from './outline'
import { tenth } from './steps'

/** What is taken hold of: what it is called, where it is, and the shot with it somewhere else. */
export type Grip = {
  name: string
  says: string
  at: Place
  to: (x: number, y: number) => Shot
  /** The shot without it, where it can be taken away. */
  away?: () => Shot
  /** It becomes something once it is carried. */
  adds?: boolean
}

const beside = (right: number, away: number) => `${length(right)} right, ${length(away)} away`

/** Everything on the floor but the lights. */
export function gripsOf(seen: FloorAnswer, behind: boolean): Grip[] {
  return [
    ofCamera(seen),
    ...(behind ? [ofBackground(seen)] : []),
    ...ofArea(seen),
    ...ofWay(seen),
    ...ofRoom(seen),
    ...ofFlags(seen),
  ]
}

function ofCamera({ shot, camera }: FloorAnswer): Grip {
  return {
    name: 'Camera',
    says: `${length(-camera.y_m)} from the mark`,
    at: [camera.x_m, camera.y_m],
    to: (_, y) => ({ ...shot, subject: { ...shot.subject, distance_m: tenth(-y) } }),
  }
}

function ofBackground({ shot, behind_m }: FloorAnswer): Grip {
  return {
    name: 'Background',
    says: `${length(behind_m)} behind the mark`,
    at: [0, behind_m],
    to: (_, y) => ({ ...shot, background: { ...shot.background, behind_m: tenth(y) } }),
  }
}

type Sides = { left_m: number; right_m: number; near_m: number; far_m: number }

function byTwoCorners(name: string, of: Sides, put: (sides: Partial<Sides>) => Shot): Grip[] {
  return [
    {
      name: `${name}, near left`,
      says: beside(of.left_m, of.near_m),
      at: [of.left_m, of.near_m],
      to: (x, y) => put({ left_m: tenth(x), near_m: tenth(y) }),
    },
    {
      name: `${name}, far right`,
      says: beside(of.right_m, of.far_m),
      at: [of.right_m, of.far_m],
      to: (x, y) => put({ right_m: tenth(x), far_m: tenth(y) }),
    },
  ]
}

/** A rectangle by two of its corners, an outline by all of them; and between them new ones. */
function ofArea({ shot, area, area_corners }: FloorAnswer): Grip[] {
  const corners = area_corners.map(([x, y]): Place => [x!, y!])
  const shaped = !!area.corners?.length
  const put = (places: Place[]): Shot => ({ ...shot, area: areaOf(area, places) })
  const sides = byTwoCorners('Area', area, (sides) => ({ ...shot, area: { ...area, ...sides } }))
  const own = corners.map(([right, away], index): Grip => {
    const without = corners.toSpliced(index, 1)
    return {
      name: `Area, corner ${index + 1}`,
      says: beside(right, away),
      at: [right, away],
      to: (x, y) => put(corners.with(index, [tenth(x), tenth(y)])),
      away: without.length >= 3 ? () => put(without) : undefined,
    }
  })
  const between = corners.map(([right, away], index): Grip => {
    const [nextRight, nextAway] = corners[(index + 1) % corners.length]!
    return {
      name: `Area, a new corner after ${index + 1}`,
      says: 'carry it',
      at: [(right + nextRight) / 2, (away + nextAway) / 2],
      to: (x, y) => put(corners.toSpliced(index + 1, 0, [tenth(x), tenth(y)])),
      adds: true,
    }
  })
  return [...(shaped ? own : sides), ...between]
}

/** The walls by two of their corners. */
function ofRoom({ shot }: FloorAnswer): Grip[] {
  const { room } = shot
  if (!room) return []
  return byTwoCorners('Room', room, (sides) => ({ ...shot, room: { ...room, ...sides } }))
}

/** Flags are set down to the centimetre: a tenth of a metre is half of one. */
const centimetre = (metres: number) => Math.round(metres * 100) / 100

function ofFlags({ shot, lights }: FloorAnswer): Grip[] {
  return lights.flatMap((light, index): Grip[] => {
    const { flag } = light
    if (!flag) return []
    const put = (change: Partial<typeof flag>): Shot => ({
      ...shot,
      lights: shot.lights.with(index, { ...shot.lights[index]!, flag: { ...flag, ...change } }),
    })
    return [
      {
        name: `Flag of ${light.label}`,
        says: beside(flag.x_m, flag.y_m),
        at: [flag.x_m, flag.y_m],
        to: (x, y) => put({ x_m: centimetre(x), y_m: centimetre(y) }),
      },
    ]
  })
}

function ofWay({ shot }: FloorAnswer): Grip[] {
  const { way } = shot
  if (!way) return []
  return (['from_m', 'to_m'] as const).map((end) => ({
    name: end === 'from_m' ? 'Way, its beginning' : 'Way, its end',
    says: beside(way[end][0]!, way[end][1]!),
    at: [way[end][0]!, way[end][1]!],
    to: (x, y) => ({ ...shot, way: { ...way, [end]: [tenth(x), tenth(y)] } }),
  }))
}
