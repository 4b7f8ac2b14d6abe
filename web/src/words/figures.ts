import { FOOT, isImperial, preferences } from './preferred'

const PARTS = { thirds: 3, halves: 2 } as const

/** Stops as a dial cut in thirds or halves has them. */
function inParts(stops: number, parts: 2 | 3): string {
  const count = Math.round(Math.abs(stops) * parts)
  const [whole, rest] = [Math.floor(count / parts), count % parts]
  const text = [whole > 0 || rest === 0 ? whole : '', rest > 0 ? `${rest}/${parts}` : ''].filter(
    (one) => one !== '',
  )
  return `${stops < 0 && count > 0 ? '−' : '+'}${text.join(' ')}`
}

/** Stops as set everywhere: sign, true minus, one decimal, or in the parts of a stop that are preferred. */
export function signedStops(stops: number, decimals = 1): string {
  const { stops: as } = preferences()
  if (decimals === 1 && as && as !== 'tenths') return inParts(stops, PARTS[as])
  const text = Math.abs(stops).toFixed(decimals)
  if (Number(text) === 0) return decimals === 0 ? '0' : `+${text}`
  return `${stops < 0 ? '−' : '+'}${text}`
}

/** Where light stands on the ladder; none at all has no number. */
export function placed(stops: number | null | undefined): string {
  return stops == null ? 'no light' : signedStops(stops)
}

/** A length in the unit that reads best. */
export function length(metres: number): string {
  if (isImperial())
    return metres >= FOOT ? `${(metres / FOOT).toFixed(1)} ft` : `${((metres / FOOT) * 12).toFixed(2)} in`
  if (metres >= 1) return `${metres.toFixed(2)} m`
  if (metres >= 0.01) return `${(metres * 100).toFixed(1)} cm`
  return `${(metres * 1000).toFixed(1)} mm`
}

/** A length as it is paced out. */
export const paced = (metres: number): string => (isImperial() ? length(metres) : `${metres.toFixed(1)} m`)

/** Pixels of the camera. */
export function pixels(px: number): string {
  return `${px >= 20 ? px.toFixed(0) : px.toFixed(1)} px`
}

/** A share in per cent. */
export function percent(share: number): string {
  const value = share * 100
  return `${value >= 10 ? value.toFixed(0) : value.toFixed(1)} %`
}

/** A time on the axis of the moment, in milliseconds or finer. */
export function axisTime(seconds: number): string {
  if (Math.abs(seconds) >= 1) return `${+seconds.toPrecision(3)} s`
  if (Math.abs(seconds) >= 1e-3 || seconds === 0) return `${+(seconds * 1e3).toPrecision(4)} ms`
  return `${+(seconds * 1e6).toPrecision(4)} µs`
}
