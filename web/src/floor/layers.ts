import { choices } from '../words/choices'

export type Layer = 'beams' | 'contours' | 'lens' | 'way' | 'room' | 'sun'

/** What can be taken off the sheet and put on again. */
export const LAYERS = choices<Layer>({
  beams: 'Beams',
  contours: 'Lines of equal light',
  lens: 'What the lens sees',
  way: 'The way along',
  room: 'Room and flags',
  sun: 'Sun and clock',
})
export const ALL: Layer[] = LAYERS.map(({ value }) => value)
