import { Button, SegmentedControl, Select, Tooltip } from '@mantine/core'
import type { Priority, Shot } from '../api/client'
import { Key } from '../commands/Key'
import { withKey } from '../commands/list'
import { choices } from '../words/choices'
import classes from './Match.module.css'

const PRIORITIES = choices<Priority>({
  balanced: 'Balanced',
  shortest_pulse: 'Shortest pulse',
  lowest_iso: 'Lowest ISO',
  longest_battery: 'Longest battery',
  least_to_carry: 'Least to carry',
  fastest_burst: 'Fastest burst',
  least_change: 'Least change',
})
/** What units are looked for. */
export type Scope = 'light' | 'shot' | 'job'

type Props = {
  shot: Shot
  saving: string
  scope: Scope
  onScope: (scope: Scope) => void
  priority: Priority
  onPriority: (priority: Priority) => void
  /** Pinned set-ups side by side; not when there are none to compare. */
  onCompare: (() => void) | undefined
  /** The list as a table; not while there is none. */
  onTable: (() => void) | undefined
  onUndo: () => void
  onClose: () => void
}

/** What is asked for, what counts first, and what can be done with the answer. */
export function MatchHead(props: Props) {
  const { shot, saving, scope, onScope, priority, onPriority, onCompare, onTable, onUndo, onClose } = props
  const small = { size: 'compact-sm', radius: 'xl', variant: 'default' } as const
  return (
    <header className={classes.top}>
      <Tooltip label={withKey('to_bench')}>
        <Button {...small} onClick={onClose}>
          ← Bench
        </Button>
      </Tooltip>
      <h1 className={classes.title}>
        Match <small>{shot.title}</small>
      </h1>
      <SegmentedControl
        size="xs"
        aria-label="For"
        value={scope}
        onChange={(value) => onScope(value as Scope)}
        data={choices<Scope>({ light: 'The key', shot: 'All lights', job: 'The whole job' })}
      />
      <span className={classes.spacer} />
      <Select
        size="xs"
        aria-label="First of all"
        data={PRIORITIES}
        value={priority}
        allowDeselect={false}
        onChange={(value) => value && onPriority(value as Priority)}
        w={150}
      />
      <Button {...small} disabled={!onCompare} onClick={onCompare}>
        Side by side&nbsp;
        <Key of="side_by_side" />
      </Button>
      <Button {...small} disabled={!onTable} onClick={onTable}>
        CSV
      </Button>
      <Button {...small} disabled={!onTable} onClick={() => window.print()}>
        Print
      </Button>
      <Tooltip label={withKey('undo')}>
        <Button {...small} aria-label="Undo" onClick={onUndo}>
          ↶
        </Button>
      </Tooltip>
      <span className={classes.saving} data-saving={saving} role="status">
        {saving}
      </span>
    </header>
  )
}
