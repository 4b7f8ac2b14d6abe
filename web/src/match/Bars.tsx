import type { MatchRow } from '../api/client'
import classes from './Setups.module.css'

/** Margins as bars: how much of each limit is used, what has least to spare first. */
export function Bars({ margins, most }: { margins: MatchRow['margins']; most: number }) {
  return (
    <ul className={classes.bars}>
      {margins.slice(0, most).map((margin) => (
        <li key={margin.label} data-condition={margin.condition}>
          <span>{margin.label}</span>
          <svg viewBox="0 0 60 8" preserveAspectRatio="none" aria-hidden="true">
            <rect width="60" height="8" rx="4" className={classes.whole} />
            <rect
              width={Math.min(60, Math.max(2, margin.used * 60))}
              height="8"
              rx="4"
              data-full={margin.used > 0.9 || undefined}
            />
          </svg>
          <small>{margin.said}</small>
        </li>
      ))}
    </ul>
  )
}
