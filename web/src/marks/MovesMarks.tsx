import { Tooltip } from '@mantine/core'
import type { Strip } from '../api/client'
import classes from './MovesMarks.module.css'

const WORDS = {
  flash: 'the flash',
  ambient: 'the ambient light',
  depth: 'the depth of field',
  freeze: 'the freezing',
} as const

/** What turning a control moves: disc = flash, bars = ambient, wedge = depth, pulse = freezing. */
export function MovesMarks({ moves }: { moves: Strip['moves'] }) {
  const words = moves.map((move) => WORDS[move]).join(', ')
  return (
    <Tooltip label={`Moves ${words}`}>
      <svg
        className={classes.marks}
        width="54"
        height="14"
        viewBox="0 0 54 14"
        role="img"
        aria-label={`Moves ${words}`}
      >
        {moves.includes('flash') && <circle cx="6" cy="7" r="4" fill="var(--dp-flash)" />}
        {moves.includes('ambient') && (
          <path d="M14 4h10M14 7h10M14 10h10" stroke="var(--dp-ambient)" strokeWidth="1.6" fill="none" />
        )}
        {moves.includes('depth') && (
          <path
            d="M28 11 33 3l5 8Z"
            fill="none"
            stroke="var(--dp-muted)"
            strokeWidth="1.5"
            strokeLinejoin="round"
          />
        )}
        {moves.includes('freeze') && (
          <path d="M42 11c2 0 2-8 4-8s2 8 6 8" fill="none" stroke="var(--dp-movement)" strokeWidth="1.6" />
        )}
      </svg>
    </Tooltip>
  )
}
