import { Button } from '@mantine/core'
import { Key } from '../commands/Key'
import type { NearestRow } from '../api/client'
import classes from './Setups.module.css'

type Props = { rank: number; near: NearestRow; inHand: boolean; onHand: () => void; onGive: () => void }

/** What would have to give, what it costs, and the set-up that then works. */
export function NearestCard({ rank, near, inHand, onHand, onGive }: Props) {
  return (
    <li className={classes.card} data-hand={inHand || undefined} data-nearest={rank} onClick={onHand}>
      <div className={classes.head}>
        <b className={classes.price}>{near.price_stops.toFixed(1)} st</b>
        <span className={classes.give}>{near.gives.map((give) => give.said).join(' and ')}</span>
      </div>
      <p className={classes.facts}>
        then {near.row.title}, {near.row.how}, {near.row.exposure}
      </p>
      {inHand && (
        <div className={classes.acts}>
          <Button size="compact-sm" data-act="give" onClick={onGive}>
            Let it give&nbsp;
            <Key of="set_so" />
          </Button>
        </div>
      )}
    </li>
  )
}
