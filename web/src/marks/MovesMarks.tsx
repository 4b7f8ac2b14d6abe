import { memo, type ReactNode } from 'react'
import { Tooltip } from '@mantine/core'
import type { Strip } from '../api/client'
import classes from './MovesMarks.module.css'

type Move = Strip['moves'][number]

const WORDS: Record<Move, string> = {
  flash: 'the flash',
  ambient: 'the ambient light',
  depth: 'the depth of field',
  freeze: 'the freezing',
}
const SHAPES: Record<Move, ReactNode> = {
  flash: <circle cx="6" cy="7" r="4" fill="var(--dp-flash)" />,
  ambient: <path d="M1.5 4h9M1.5 7h9M1.5 10h9" stroke="var(--dp-ambient)" strokeWidth="1.6" />,
  depth: (
    <path
      d="M1.5 11 6 3l4.5 8Z"
      fill="none"
      stroke="var(--dp-muted)"
      strokeWidth="1.5"
      strokeLinejoin="round"
    />
  ),
  freeze: <path d="M1 11c2 0 2-8 4-8s2 8 6 8" fill="none" stroke="var(--dp-movement)" strokeWidth="1.6" />,
}

/** What turning a control moves: disc = flash, bars = ambient, wedge = depth, pulse = freezing. */
export const MovesMarks = memo(
  function MovesMarks({ moves }: { moves: Move[] }) {
    const words = `Moves ${moves.map((move) => WORDS[move]).join(', ')}`
    return (
      <Tooltip label={words}>
        <span className={classes.marks} role="img" aria-label={words}>
          {moves.map((move) => (
            <svg key={move} width="12" height="14" viewBox="0 0 12 14" aria-hidden="true">
              {SHAPES[move]}
            </svg>
          ))}
        </span>
      </Tooltip>
    )
  },
  // Every answer brings a new list with the same words in it.
  (before, after) => before.moves.join() === after.moves.join(),
)
