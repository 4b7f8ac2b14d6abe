import type { Place } from '../api/client'

/** Places as a photographer calls them. */
export const PLACES: Record<Place, string> = {
  paper_light: 'Pale paper',
  paper_grey: 'Grey paper',
  paper_black: 'Black box',
  dim_hall: 'Dim hall',
  bright_hall: 'Bright hall',
  field_day: 'Field by day',
  field_dusk: 'Field at dusk',
  field_floodlit: 'Floodlit field',
  street_night: 'Street at night',
  pool_deck: 'Pool deck',
  tent: 'Tent',
  stage: 'Stage',
  dance_floor: 'Dance floor',
  track: 'Track',
  beach: 'Beach',
  quay: 'Quay at dusk',
  printed_wall: 'Printed wall',
  even_wall: 'Even wall',
}
