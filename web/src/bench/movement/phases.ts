import type { Phase } from '../../api/client'

export type PhaseKind = Phase['is']

/** Kinds of phases, as they are told. */
export const PHASES: Record<PhaseKind, string> = {
  rest: 'Rest',
  line: 'Line',
  arc: 'Arc',
  fall: 'Fall',
  jump: 'Jump',
  to_and_fro: 'To and fro',
}

/** A phase as it is begun with. */
export const begun = (kind: PhaseKind, speed: number): Phase => {
  switch (kind) {
    case 'rest':
      return { is: 'rest', seconds: 0.2 }
    case 'line':
      return { is: 'line', from_m_s: speed, to_m_s: speed, seconds: 0.3 }
    case 'arc':
      return { is: 'arc', radius_m: 0.5, from_deg: 0, to_deg: 90, seconds: 0.3 }
    case 'fall':
      return { is: 'fall', height_m: 0.5 }
    case 'jump':
      return { is: 'jump', height_m: 0.4 }
    case 'to_and_fro':
      return { is: 'to_and_fro', amplitude_m: 0.3, rate_hz: 1, seconds: 2 }
  }
}

/** Where what falls goes, and what jumps. */
export const DIRECTIONS: Partial<Record<PhaseKind, number>> = { fall: 270, jump: 90 }

/** A phase that lasts so much longer; the same where its length follows from something else. */
export const lasting = (phase: Phase, seconds: number): Phase =>
  'seconds' in phase && phase.seconds != null
    ? { ...phase, seconds: Math.max(0.005, Math.round(seconds * 1000) / 1000) }
    : phase
