import { Button } from '@mantine/core'
import { Refusal } from '../api/client'
import type { useMatch } from './useMatch'
import classes from './Match.module.css'

/** How the search stands, in a sentence. */
export function SearchState({ search }: { search: ReturnType<typeof useMatch> }) {
  return (
    <p className={classes.count} role="status" data-testid="count">
      <Words search={search} />
    </p>
  )
}

function Words({ search }: { search: ReturnType<typeof useMatch> }) {
  const { answer, refusal, going, progress, stopped, stop } = search
  if (refusal) {
    const field = refusal instanceof Refusal ? refusal.problem.field : undefined
    return (
      <span data-field={field} className={classes.refused}>
        {refusal.message}
      </span>
    )
  }
  if (going) {
    return (
      <>
        {progress?.nearest ? 'Looking for what would have to give' : 'Searching'}
        {progress && progress.of > 0 && ` · ${progress.done} of ${progress.of} units`}…{' '}
        <Button size="compact-xs" variant="default" onClick={stop}>
          Stop
        </Button>
      </>
    )
  }
  if (stopped || !answer) return 'Stopped. Change something to search again.'
  const { rows, nearest, ways } = answer
  if (rows.length > 0) {
    return `${rows.length} set-up${rows.length === 1 ? '' : 's'}, ${ways.toLocaleString('en-GB')} ways to set them`
  }
  return nearest.length > 0
    ? 'Nothing does all of this. Nearest first, with what would have to give:'
    : 'Nothing does this, and nothing comes within six stops of it.'
}
