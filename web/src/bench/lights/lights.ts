import type { Flash, Part, Shot } from '../../api/client'

const LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ'
/** As many as a shot takes. */
export const MOST_LIGHTS = 12

/** The shot with one light otherwise. */
export function withLight(shot: Shot, index: number, change: Partial<Flash>): Shot {
  return { ...shot, lights: shot.lights.map((light, at) => (at === index ? { ...light, ...change } : light)) }
}

/** The shot with one more light: like the one in hand, on the other side, in a group of its own. */
export function withOneMore(shot: Shot, like: number): Shot {
  const from = shot.lights[like]!
  const taken = new Set(shot.lights.map((light) => light.group))
  const group = [...LETTERS].find((letter) => !taken.has(letter)) ?? 'A'
  const role = shot.lights.some((light) => light.role === 'fill') ? 'rim' : 'fill'
  const bearing = role === 'rim' ? 140 : 40
  const used = shot.lights.some((light) => light.bearing_deg === bearing)
  const light: Flash = { ...from, on: true, role, group, bearing_deg: used ? -bearing : bearing }
  return { ...shot, lights: [...shot.lights, light] }
}

/** The shot without one of its lights. */
export function withoutLight(shot: Shot, index: number): Shot {
  return { ...shot, lights: shot.lights.filter((_, at) => at !== index) }
}

/** The shot as it is with one light alone, for the picture: the others wait. */
export function soloed(shot: Shot, index: number | undefined): Shot {
  if (index === undefined) return shot
  return { ...shot, lights: shot.lights.map((light, at) => ({ ...light, on: light.on && at === index })) }
}

/** The shot with other parts; lights and lamps that miss a part go on missing it under its new name. */
export function withParts(shot: Shot, parts: Part[]): Shot {
  const renamed = (name: string) => {
    const before = shot.parts.findIndex((part) => part.name === name)
    // As many parts as before: one was renamed. Fewer: one is gone.
    if (parts.length === shot.parts.length) return parts[before]?.name
    return parts.some((part) => part.name === name) ? name : undefined
  }
  const missing = <T extends { misses?: string[] }>(light: T): T =>
    light.misses?.length
      ? { ...light, misses: light.misses.map(renamed).filter((name): name is string => name !== undefined) }
      : light
  return { ...shot, parts, lights: shot.lights.map(missing), lamps: shot.lamps?.map(missing) }
}
