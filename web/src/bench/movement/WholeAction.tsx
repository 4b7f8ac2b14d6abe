import { Text } from '@mantine/core'
import type { LanesAnswer, Shot, WhenTaken } from '../../api/client'
import { MaybeFigure } from '../../controls/MaybeFigure'
import { SeverityMark } from '../../marks/SeverityMark'
import { axisTime } from '../../words/figures'
import classes from './Movement.module.css'

type Props = {
  shot: Shot
  lanes: LanesAnswer
  refused: (field: string) => string | undefined
  onChange: (moment: WhenTaken) => void
}

/** A shutter that holds an action from its start to its end, and nothing of what comes after. */
export function WholeAction({ shot, lanes, refused, onChange }: Props) {
  const moment = shot.moment ?? {}
  const put = (change: Partial<WhenTaken>) => onChange({ ...moment, ...change })
  const action = lanes.action
  return (
    <div className={classes.peak}>
      <div className={classes.fields}>
        <MaybeFigure
          label="The action lasts"
          suffix=" s"
          step={0.05}
          placeholder="not said"
          value={moment.action_s}
          error={refused('action_s')}
          onChange={(action_s) => put(action_s == null ? { action_s, next_s: undefined } : { action_s })}
        />
        <MaybeFigure
          label="The next begins after"
          suffix=" s"
          step={0.05}
          placeholder="nothing comes"
          value={moment.next_s}
          error={refused('next_s')}
          onChange={(next_s) => put({ next_s })}
        />
      </div>
      {action ? (
        <p className={classes.line} data-fits={action.fits}>
          <SeverityMark severity={action.fits ? 'fine' : 'trouble'} /> {action.says}
          {action.possible && (
            <>
              {' '}
              From <b className="mono">{axisTime(action.shortest_s)}</b> on
              {action.longest_s != null && (
                <>
                  , no longer than <b className="mono">{axisTime(action.longest_s)}</b>
                </>
              )}
              .
            </>
          )}
        </p>
      ) : (
        <Text size="sm" c="dimmed">
          A turn, a throw, a landing that shall be whole in the frame: say how long it lasts, and when what
          follows begins.
        </Text>
      )}
      {lanes.says.map((sentence) => (
        <p key={sentence} className={classes.line}>
          {sentence}.
        </p>
      ))}
    </div>
  )
}
