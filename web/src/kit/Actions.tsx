import { Button, Tooltip } from '@mantine/core'
import type { ItemAnswer } from '../api/client'
import { Key } from '../commands/Key'
import { withKey } from '../commands/list'
import classes from './KitScreen.module.css'

type Props = {
  kept: ItemAnswer
  onChange: () => void
  onCopy: () => void
  onStep: (way: 'undo' | 'redo' | 'retire' | 'unretire') => void
  onDelete: () => void
}

/** What can be done with a thing. */
export function Actions({ kept, onChange, onCopy, onStep, onDelete }: Props) {
  const small = { size: 'compact-sm', radius: 'xl', variant: 'default' } as const
  return (
    <div className={classes.actions}>
      <Button {...small} onClick={onChange}>
        Change&nbsp;
        <Key of="change_thing" />
      </Button>
      <Button {...small} onClick={onCopy}>
        Copy
      </Button>
      <Button {...small} onClick={() => onStep(kept.retired ? 'unretire' : 'retire')}>
        {kept.retired ? 'Take along again' : 'Retire'}
      </Button>
      <Button {...small} onClick={onDelete}>
        Delete
      </Button>
      <Tooltip label={withKey('undo')}>
        <Button {...small} aria-label="Undo" disabled={!kept.can_undo} onClick={() => onStep('undo')}>
          ↶
        </Button>
      </Tooltip>
      <Tooltip label={withKey('redo')}>
        <Button {...small} aria-label="Redo" disabled={!kept.can_redo} onClick={() => onStep('redo')}>
          ↷
        </Button>
      </Tooltip>
    </div>
  )
}
