import { memo } from 'react'
import { Button } from '@mantine/core'
import type { FloorAnswer } from '../api/client'
import type { Carried } from './useFloor'
import classes from './Floor.module.css'

type Props = { people: FloorAnswer['people']; onTake: (to: Carried) => void }

/** What light falls on each who stands there, and what would make them as bright as the subject. */
export const People = memo(function People({ people, onTake }: Props) {
  if (people.length === 0) return null
  return (
    <section aria-label="People" className={classes.people}>
      <h2 className={classes.name}>People</h2>
      {people.map(({ name, says, matches, light }) => (
        <div key={name} className={classes.person} data-person={name}>
          <strong>{name}</strong>
          <p className={classes.says}>{says}</p>
          {matches &&
            (matches.spoils == null ? (
              <Button
                size="compact-sm"
                radius="xl"
                variant="default"
                onClick={() => onTake({ light: light!, ...matches.to, power: matches.power })}
              >
                As bright as the subject: {matches.says}
              </Button>
            ) : (
              <p className={classes.says}>
                Not {matches.says}: {matches.spoils}
              </p>
            ))}
        </div>
      ))}
    </section>
  )
})
