import { Button } from '@mantine/core'
import classes from './Match.module.css'

type Props = {
  done: string | undefined
  trouble: string | undefined
  onBench: () => void
  onClose: () => void
}

/** What came of a press: the shot is set, or why it is not. */
export function MatchNotice({ done, trouble, onBench, onClose }: Props) {
  if (!done && !trouble) return null
  return (
    <p className={classes.notice} role="status" data-notice={trouble ? 'trouble' : 'done'}>
      {trouble ?? done}{' '}
      {!trouble && (
        <Button size="compact-xs" variant="default" onClick={onBench}>
          See it on the Bench
        </Button>
      )}
      <Button size="compact-xs" variant="subtle" aria-label="Close this notice" onClick={onClose}>
        ✕
      </Button>
    </p>
  )
}
