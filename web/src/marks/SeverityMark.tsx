import type { Severity } from '../api/client'

/** A shape for each severity, so that it does not hang on colour. */
export function SeverityMark({ severity, size = 16 }: { severity: Severity; size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 20 20" role="img" aria-label={SEVERITY_WORDS[severity]}>
      {severity === 'trouble' && (
        <>
          <path
            d="M10 2.5 18 17H2Z"
            fill="none"
            stroke="var(--dp-trouble)"
            strokeWidth="2.2"
            strokeLinejoin="round"
          />
          <path d="M10 8v4" stroke="var(--dp-trouble)" strokeWidth="2.2" strokeLinecap="round" />
          <circle cx="10" cy="14.4" r="1.2" fill="var(--dp-trouble)" />
        </>
      )}
      {severity === 'watch' && (
        <path d="M3 7.5h14M3 12.5h14" stroke="var(--dp-flash)" strokeWidth="2.6" strokeDasharray="4 2.6" />
      )}
      {severity === 'fine' && (
        <path
          d="m3.5 10.5 4.3 4.3 8.7-9.6"
          fill="none"
          stroke="var(--dp-fine)"
          strokeWidth="2.6"
          strokeLinecap="round"
        />
      )}
    </svg>
  )
}

export const SEVERITY_WORDS: Record<Severity, string> = { trouble: 'Trouble', watch: 'Watch', fine: 'Fine' }
