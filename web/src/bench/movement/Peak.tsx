import { Text } from '@mantine/core'
import type { LanesAnswer, Shot, WhenTaken } from '../../api/client'
import { MaybeFigure } from '../../controls/MaybeFigure'
import { percent } from '../../words/figures'
import { Reaction } from './Reaction'
import classes from './Movement.module.css'

type Props = {
  shot: Shot
  lanes: LanesAnswer
  refused: (field: string) => string | undefined
  onChange: (moment: WhenTaken) => void
}

/** The top of a jump: one timed frame beside a burst, and how the chance of each grows with tries. */
export function Peak({ shot, lanes, refused, onChange }: Props) {
  const moment = shot.moment ?? {}
  const put = (change: Partial<WhenTaken>) => onChange({ ...moment, ...change })
  const peak = lanes.peak
  return (
    <div className={classes.peak}>
      <div className={classes.fields}>
        <MaybeFigure
          label="The jump rises"
          suffix=" m"
          step={0.05}
          placeholder="no jump"
          value={moment.jump_m}
          error={refused('jump_m')}
          onChange={(jump_m) => put({ jump_m })}
        />
        <MaybeFigure
          label="Tries"
          step={1}
          placeholder="one"
          value={moment.tries}
          error={refused('tries')}
          onChange={(tries) => put({ tries })}
        />
        <Reaction
          reaction={lanes.reaction_s}
          spread={lanes.spread_s}
          measured={lanes.measured}
          onMeasured={put}
        />
      </div>
      {peak ? (
        <>
          <p className={classes.line}>
            In the air <b className="mono">{(peak.air_s * 1000).toFixed(0)} ms</b>, slow enough for{' '}
            {peak.strictest ?? 'everything'} <b className="mono">{(peak.window_s * 1000).toFixed(0)} ms</b>
          </p>
          <table className={classes.tries}>
            <thead>
              <tr>
                <th>Tries</th>
                {peak.tries.map(({ tries }) => (
                  <th key={tries} className="mono">
                    {tries}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {(['one', 'burst'] as const).map((school) => (
                <tr key={school} data-school={school}>
                  <th>
                    {school === 'one'
                      ? 'One timed frame'
                      : `A burst of ${peak.frames}, ${+peak.rate.toFixed(1)} a second`}
                  </th>
                  {peak.tries.map((row) => (
                    <td key={row.tries} className="mono">
                      {percent(row[school])}
                      <span className={classes.chance} style={{ width: `${row[school] * 100}%` }} />
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
          {peak.says.map((sentence) => (
            <p key={sentence} className={classes.line}>
              {sentence}
            </p>
          ))}
        </>
      ) : (
        <Text size="sm" c="dimmed">
          Say how high the jump is: how long its top lasts, and the chance to get it.
        </Text>
      )}
    </div>
  )
}
