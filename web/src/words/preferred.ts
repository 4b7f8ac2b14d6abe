/** What of the preferences is about writing; the program has the whole of it. */
export type Preferred = {
  lengths?: 'metric' | 'imperial'
  stops?: 'tenths' | 'thirds' | 'halves'
  utc_offset_min?: number | null
}

/** A foot in metres and a mile an hour in metres a second, exactly. */
export const FOOT = 0.3048
const MPH = 0.44704

/** How figures are written; set before anything is drawn, and everything is drawn anew when it changes. */
let preferred: Preferred = { lengths: 'metric', stops: 'tenths' }

export const prefer = (to: Preferred) => {
  preferred = to
}
export const preferences = () => preferred
export const isImperial = () => preferred.lengths === 'imperial'

type Written = { unit: string; suffix: string; per: number }

/** Units of the program that some people count in others, and by what those are more. */
const IMPERIAL: Record<string, Written> = {
  ' m': { unit: 'ft', suffix: ' ft', per: FOOT },
  ' m behind': { unit: 'ft', suffix: ' ft behind', per: FOOT },
  ' m/s': { unit: 'mph', suffix: ' mph', per: MPH },
}

/** How a figure with this unit behind it is written here, where it is otherwise. */
export const otherwise = (suffix: string | undefined): Written | undefined =>
  isImperial() && suffix ? IMPERIAL[suffix] : undefined
