import { Tooltip, UnstyledButton } from '@mantine/core'
import type { Held, HoldAnswer, Shot } from '../api/client'
import { Lock } from '../marks/Lock'
import { signedStops } from '../words/figures'
import classes from './HoldChips.module.css'

const LOOKS: { held: Held; word: string; why: string }[] = [
  { held: 'key', word: 'Key', why: 'The key stays where it falls on the subject; other lights are free' },
  { held: 'ratios', word: 'Ratios', why: 'The other lights stay where they are against the key' },
  { held: 'ambient', word: 'Ambient', why: 'The steady light stays where it falls on the subject' },
  { held: 'background', word: 'Back', why: 'The steady light stays where it falls on the background' },
  { held: 'depth', word: 'Depth', why: 'What is sharp stays sharp' },
  { held: 'blur', word: 'Blur', why: 'What the flash holds still gets no longer blur' },
]

/** Where lamps burn, their dimmers follow too, unless they are told to stay. */
const LAMPS = { held: 'lamps', word: 'Lamps', why: 'The dimmers of the lamps stay where they are' } as const

type Props = { shot: Shot; answer: HoldAnswer | undefined; onToggle: (held: Held) => void }

/** With one thing in or out of what is held. */
export function toggled(shot: Shot, held: Held): Shot {
  const hold = shot.hold ?? []
  return { ...shot, hold: hold.includes(held) ? hold.filter((one) => one !== held) : [...hold, held] }
}

/** What stays while something is turned, and what had to give. */
export function HoldChips({ shot, answer, onToggle }: Props) {
  return (
    <div className={classes.chips} role="group" aria-label="Hold">
      <span className={classes.word}>Hold</span>
      {[...LOOKS, ...(shot.lamps?.some(({ on }) => on) ? [LAMPS] : [])].map(({ held, word, why }) => {
        const on = shot.hold?.includes(held) ?? false
        const gave = answer?.gave.find((one) => one.held === held)
        return (
          <Tooltip key={held} label={gave?.sentence ?? why} multiline maw={320}>
            <UnstyledButton
              className={classes.chip}
              aria-pressed={on}
              data-held={held}
              data-gave={gave ? true : undefined}
              onClick={() => onToggle(held)}
            >
              {on && <Lock closed />}
              {word}
              {gave && <b> {gave.by_stops == null ? 'gone' : signedStops(gave.by_stops)}</b>}
            </UnstyledButton>
          </Tooltip>
        )
      })}
      <span className="hidden-text" aria-live="polite">
        {answer?.followed.map(({ words }) => words).join('; ')}
        {answer?.gave.map(({ sentence }) => sentence).join(' ')}
      </span>
    </div>
  )
}
