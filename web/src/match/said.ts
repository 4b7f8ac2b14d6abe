import type { JobAnswer } from '../api/client'

/** Units as one says what to take. */
export const said = (units: JobAnswer['take']) =>
  units.map(({ name, count }) => (count === 1 ? name : `${count} × ${name}`)).join(', ')
