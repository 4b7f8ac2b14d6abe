import { CloseButton } from '@mantine/core'
import classes from './Floor.module.css'

type Props = { says: string[]; onRead: () => void }

/** What was done just now, until it is read. */
export function Said({ says, onRead }: Props) {
  return (
    <div role="status" className={classes.said} data-testid="floor-said">
      <ul>
        {says.map((one) => (
          <li key={one}>{one}</li>
        ))}
      </ul>
      <CloseButton size="sm" aria-label="Read" onClick={onRead} />
    </div>
  )
}
