import type { Intent } from '../api/client'

/** Filled disc = pebble, blunt lens = skim, long bar = dash. */
export function IntentMark({ intent, size = 16 }: { intent: Intent; size?: number }) {
  return (
    <svg width={size * 1.4} height={size} viewBox="0 0 28 20" aria-hidden="true" focusable="false">
      {intent === 'pebble' && <circle cx="14" cy="10" r="7" fill="var(--dp-fine)" />}
      {intent === 'skim' && (
        <path
          d="M3 10 Q14 0 25 10 Q14 20 3 10Z"
          fill="none"
          stroke="var(--dp-ambient)"
          strokeWidth="2.4"
          strokeLinejoin="round"
        />
      )}
      {intent === 'dash' && (
        <rect
          x="2"
          y="6"
          width="24"
          height="8"
          rx="4"
          fill="none"
          stroke="var(--dp-movement)"
          strokeWidth="2.2"
          strokeDasharray="4 2.4"
        />
      )}
    </svg>
  )
}

export const INTENT_WORDS: Record<Intent, string> = {
  pebble: 'held still',
  skim: 'a touch soft',
  dash: 'a streak',
}
