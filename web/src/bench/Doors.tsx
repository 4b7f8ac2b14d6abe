import { Button, Tooltip } from '@mantine/core'
import { memo } from 'react'
import { withKey } from '../commands/list'
import { SAVING_WORDS, type Saving } from './now'
import classes from './Bench.module.css'

type Props = {
  saving: Saving
  /** Why it is not, where it is not. */
  why: string | undefined
  canUndo: boolean
  canRedo: boolean
  onMatch: () => void
  onFloor: () => void
  onVersions: () => void
  onUndo: () => void
  onRedo: () => void
}

/** Whether all is saved, a step back, and the ways to where the shot is looked at otherwise. */
export const Doors = memo(function Doors(props: Props) {
  const { saving, why, canUndo, canRedo, onMatch, onFloor, onVersions, onUndo, onRedo } = props
  const look = { size: 'compact-sm', radius: 'xl', variant: 'default' } as const
  return (
    <>
      <Tooltip label={why ?? 'Everything is saved as you work'} multiline maw={320}>
        <span className={classes.saving} data-saving={saving} role="status">
          {SAVING_WORDS[saving]}
        </span>
      </Tooltip>
      <Tooltip label={withKey('match', 'Which of my units can do this')}>
        <Button {...look} onClick={onMatch}>
          Match
        </Button>
      </Tooltip>
      <Tooltip label={withKey('floor', 'The set from above and from the side')}>
        <Button {...look} onClick={onFloor}>
          Floor
        </Button>
      </Tooltip>
      <Tooltip label={withKey('versions', 'Earlier versions')}>
        <Button {...look} onClick={onVersions}>
          Versions
        </Button>
      </Tooltip>
      <Tooltip label={withKey('undo')}>
        <Button {...look} aria-label="Undo" disabled={!canUndo} onClick={onUndo}>
          ↶
        </Button>
      </Tooltip>
      <Tooltip label={withKey('redo')}>
        <Button {...look} aria-label="Redo" disabled={!canRedo} onClick={onRedo}>
          ↷
        </Button>
      </Tooltip>
    </>
  )
})
