import type { CrewRow } from '../api/client'

/** How many troubles the forecast would find with a set-up, and how much to watch. */
export const judged = ({ troubles, watches }: CrewRow) =>
  (troubles === 0 ? 'no trouble' : `${troubles} in trouble`) + (watches > 0 ? `, ${watches} to watch` : '')
