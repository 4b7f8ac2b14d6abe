import { Button } from '@mantine/core'
import type { FloorAnswer } from '../api/client'
import type { Carried } from './useFloor'
import { SeverityMark } from '../marks/SeverityMark'
import classes from './Floor.module.css'

type Props = {
  seen: FloorAnswer
  onTake: (to: Carried) => void
}

/** What to see to on the set, each with the moves that clear it. */
export function Notes({ seen, onTake }: Props) {
  return (
    <ul className={classes.notes} aria-label="To see to">
      {seen.notes.map((note) => (
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
                onClick={() =>
                  note.light != null &&
                  onTake({ light: note.light, ...clear.to, power: clear.power, flag: clear.flag })
                }
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
      {seen.notes.length === 0 && (
        <li className={classes.note} data-note="none">
          <b>
            <SeverityMark severity="fine" /> Nothing that the lens must not see
          </b>
        </li>
      )}
    </ul>
  )
}
