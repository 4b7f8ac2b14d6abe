import { TextInput } from '@mantine/core'
import { memo } from 'react'
import classes from './Bench.module.css'

type Props = {
  title: string
  place: string
  refused: boolean
  onName: (names: { title?: string; place?: string }) => void
}

/** What the shot is called and where it is. */
export const Names = memo(function Names({ title, place, refused, onName }: Props) {
  return (
    <div className={classes.names}>
      <TextInput
        variant="unstyled"
        size="xs"
        aria-label="Place"
        className={classes.place}
        value={place}
        onChange={(event) => onName({ place: event.currentTarget.value })}
      />
      <TextInput
        variant="unstyled"
        aria-label="Title of the shot"
        className={classes.title}
        value={title}
        error={refused}
        onChange={(event) => onName({ title: event.currentTarget.value })}
      />
    </div>
  )
})
