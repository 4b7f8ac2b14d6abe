import { memo } from 'react'
import { Button } from '@mantine/core'
import type { FloorAnswer } from '../api/client'
import type { Carried, LampTo } from './useFloor'
import { SeverityMark } from '../marks/SeverityMark'
import classes from './Floor.module.css'

type Props = {
  notes: FloorAnswer['notes']
  onTake: (to: Carried) => void
  onTakeLamp: (to: LampTo) => void
}
type Note = FloorAnswer['notes'][number]

/** What to see to on the set, each with the moves that clear it. */
export const Notes = memo(function Notes({ notes, onTake, onTakeLamp }: Props) {
  const take = ({ light, lamp }: Note, { to, power, flag }: Note['clears'][number]) => {
    if (light != null) onTake({ light, ...to, power, flag })
    else if (lamp != null) onTakeLamp({ lamp, ...to, level_share: power })
  }
  return (
    <ul className={classes.notes} aria-label="To see to">
      {notes.map((note) => (
        <li key={note.title} className={classes.note} data-note={note.title}>
          <b>
            <SeverityMark severity={note.severity} /> {note.title}
          </b>
          <p>{note.says}</p>
          {note.clears.map((clear) =>
            clear.spoils == null ? (
              <Button
                key={clear.says}
                size="compact-xs"
                radius="xl"
                variant="default"
                onClick={() => take(note, clear)}
              >
                {clear.says}
              </Button>
            ) : (
              <p key={clear.says} className={classes.spoils}>
                Not {clear.says}: {clear.spoils}
              </p>
            ),
          )}
        </li>
      ))}
      {notes.length === 0 && (
        <li className={classes.note} data-note="none">
          <b>
            <SeverityMark severity="fine" /> Nothing that the lens must not see
          </b>
        </li>
      )}
    </ul>
  )
})
