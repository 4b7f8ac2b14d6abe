import { Button, Checkbox } from '@mantine/core'
import { Key } from '../commands/Key'
import type { MatchRow } from '../api/client'
import { pixels } from '../words/figures'
import { Bars } from './Bars'
import classes from './Setups.module.css'

/** Bars on a card that is not in hand. */
const FEW = 3

type Props = {
  rank: number
  row: MatchRow
  inHand: boolean
  pinned: boolean
  canPin: boolean
  onHand: () => void
  onPin: () => void
  onApply: () => void
  onExplain: () => void
}

/** A set-up that works: what to take, how to set it, and what has least to spare. */
export function SetupCard({ rank, row, inHand, pinned, canPin, onHand, onPin, onApply, onExplain }: Props) {
  return (
    <li className={classes.card} data-hand={inHand || undefined} data-setup={rank} onClick={onHand}>
      <div className={classes.head}>
        <b className={classes.rank}>{rank}</b>
        <span className={classes.title}>
          {row.title}
          {row.estimated && <em> estimate</em>}
        </span>
        <Checkbox
          size="xs"
          label="Pin"
          checked={pinned}
          disabled={!pinned && !canPin}
          onChange={onPin}
          onClick={(event) => event.stopPropagation()}
        />
      </div>
      <p className={classes.how}>
        {row.how}
        <br />
        {row.exposure} · {row.sync}
      </p>
      <p className={classes.facts}>
        freezes {row.freeze}
        {row.blur_px != null && `, ${pixels(row.blur_px)}`}
        {row.ready_s != null && ` · ready in ${row.ready_s.toFixed(1)} s`}
        {row.weight_kg != null && ` · ${row.weight_kg.toFixed(1)} kg`} · {row.ways.toLocaleString('en-GB')}{' '}
        ways
      </p>
      <p className={classes.facts} data-verified>
        {row.troubles === 0 ? 'The whole shot: no trouble' : `The whole shot: ${row.troubles} in trouble`}
        {row.watches > 0 && `, ${row.watches} to watch`}
      </p>
      <Bars margins={row.margins} most={inHand ? row.margins.length : FEW} />
      {inHand && (
        <>
          {row.also.length > 0 && <p className={classes.facts}>Also behind {row.also.join(', ')}.</p>}
          <div className={classes.acts}>
            <Button size="compact-sm" data-act="apply" onClick={onApply}>
              Set the shot so&nbsp;
              <Key of="set_so" />
            </Button>
            <Button size="compact-sm" variant="default" data-act="explain" onClick={onExplain}>
              From joules to pixels&nbsp;
              <Key of="explain" />
            </Button>
          </div>
        </>
      )}
    </li>
  )
}
