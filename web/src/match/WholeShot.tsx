import { Button, Text } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { answered, client, type Priority, type Setup, type Shot } from '../api/client'
import { useCommands } from '../commands/useCommands'
import { Waiting } from '../shell/Waiting'
import { judged } from './judged'
import { LeftOpen } from './LeftOpen'
import { Preview } from './Preview'
import cards from './Setups.module.css'
import classes from './Match.module.css'

type Props = { shot: Shot; priority: Priority; onApply: (setup: Setup) => void }

/** Every light of the shot with a unit of the kit, none used twice, at the same camera settings. */
export function WholeShot({ shot, priority, onApply }: Props) {
  const query = useQuery({
    queryKey: ['whole-shot', shot, priority],
    queryFn: ({ signal }) => answered(client.POST('/api/match/whole', { body: { shot, priority }, signal })),
    gcTime: 0,
  })
  const [at, setAt] = useState(0)
  const rows = query.data?.rows ?? []
  const hand = Math.min(at, Math.max(rows.length - 1, 0))
  const move = (by: number) => () => rows.length > 0 && setAt((hand + by + rows.length) % rows.length)
  useCommands({
    setup_after: move(1),
    setup_before: move(-1),
    set_so: () => rows[hand] && onApply(rows[hand].setup),
  })
  if (!query.data)
    return <Waiting what="the lights" error={query.error} onRetry={() => void query.refetch()} />
  return (
    <div className={classes.wide} data-testid="whole">
      <Text size="sm" c="dimmed">
        Each light keeps its role, its place against the key, its modifier, group and channel. The best unit
        goes to the light that must freeze.
      </Text>
      {query.data.why && (
        <p className={classes.none} role="status">
          {query.data.why}
        </p>
      )}
      <div className={classes.crews}>
        <div className={classes.stack}>
          <ul className={cards.list}>
            {rows.map((row, index) => (
              <li
                key={index}
                className={cards.card}
                data-crew={index + 1}
                data-hand={index === hand || undefined}
                onPointerEnter={() => setAt(index)}
                onFocus={() => setAt(index)}
              >
                <div className={cards.head}>
                  <b className={cards.rank}>{index + 1}</b>
                  <span className={`${cards.title} mono`}>{row.exposure}</span>
                  <span className={cards.facts}>
                    {judged(row)}
                    {row.weight_kg != null && ` · ${row.weight_kg.toFixed(1)} kg`}
                  </span>
                  <Button size="compact-sm" onClick={() => onApply(row.setup)}>
                    Set the shot so
                  </Button>
                </div>
                <table className={classes.crew}>
                  <tbody>
                    {row.lights.map((light) => (
                      <tr key={light.label}>
                        <th scope="row">{light.label}</th>
                        <td>
                          <b>{light.title}</b>
                        </td>
                        <td className="mono">{light.how}</td>
                        <td className="mono">{light.freeze}</td>
                        <td>{light.group}</td>
                      </tr>
                    ))}
                  </tbody>
                </table>
              </li>
            ))}
          </ul>
          <LeftOpen shot={shot} setup={rows[hand]?.setup} />
        </div>
        <aside>
          <Preview shot={shot} setup={rows[hand]?.setup} />
        </aside>
      </div>
    </div>
  )
}
