import { Tooltip } from '@mantine/core'
import { memo } from 'react'
import type { AtPower, Sheet } from '../api/client'
import { Figure } from '../controls/Figure'
import { nearest, type Lane } from './lanes'
import { LaneSign } from './LaneMark'
import { figure } from './words'
import classes from './AtThisPower.module.css'

type Props = { lanes: Lane[]; power: number; rate: number; onRate: (rate: number) => void }
type Row = { label: string; why?: string; of: (at: AtPower, sheet: Sheet) => string }

const DOUBTS: Record<NonNullable<AtPower['doubt']>, string> = {
  outside_table: 'beyond the table',
  beyond_recordings: 'beyond the recordings',
  fitted: 'one of two, fitted',
  misfit: 'fits no pulse',
}

const UNKNOWN = 'not known'

/** What each unit does at one power, figure by figure. */
export function AtThisPower({ lanes, power, rate, onRate }: Props) {
  const seen = lanes.map((lane) => nearest(lane.sheet.powers, power))
  const rows: Row[] = [
    {
      label: 't0.1',
      why: 'From 10 % to 10 % of the peak: what freezes',
      of: (at) => (at.t01_range ? `${at.t01_range.join(' to ')}, say ${at.t01_label}` : at.t01_label),
    },
    { label: 't0.5', why: 'From half to half of the peak: what leaflets print', of: (at) => at.t05_label },
    { label: 't90', why: 'The shortest time with nine tenths of the light', of: (at) => at.t90_label },
    { label: 'These are', of: (at) => (at.doubt ? `${at.origin}, ${DOUBTS[at.doubt]}` : at.origin) },
    { label: 'Guide number', why: 'Metres at ISO 100, bare', of: (at) => figure(at.guide_number_m) },
    { label: 'Energy', of: (at) => (at.energy_j === undefined ? UNKNOWN : `${figure(at.energy_j!)} J`) },
    { label: 'Ready again', of: (at) => (at.recycle_s == null ? UNKNOWN : `${figure(at.recycle_s)} s`) },
    {
      label: `Burst at ${figure(rate)}/s`,
      why: 'Whole flashes in a row before one is dim or missing',
      of: (at) => (at.burst ? (at.burst.whole == null ? 'endless' : `${at.burst.whole}`) : UNKNOWN),
    },
    {
      label: 'On one charge',
      of: (at, sheet) =>
        at.flashes_per_charge != null ? figure(at.flashes_per_charge, 2) : sheet.endless ? 'mains' : UNKNOWN,
    },
    {
      label: 'Until hot',
      why: 'Flashes at that rate from cold until it acts on its heat',
      of: (at) =>
        at.until_hot ? (at.until_hot.flashes == null ? 'never' : figure(at.until_hot.flashes, 2)) : UNKNOWN,
    },
    {
      label: 'Colour',
      of: (at) => (at.colour_k == null ? UNKNOWN : `${Math.round(at.colour_k / 10) * 10} K`),
    },
  ]
  return (
    <div className={classes.scroll}>
      <table className={classes.table} data-many={lanes.length > 2 || undefined} data-testid="at-power">
        <thead>
          <tr>
            <th scope="col">
              <Figure
                size="xs"
                aria-label="Flashes a second"
                suffix=" a second"
                step={1}
                w={118}
                value={rate}
                onChange={onRate}
              />
            </th>
            {lanes.map((lane, index) => (
              <th key={lane.unit.id} scope="col">
                <LaneSign lane={index} /> <span className="mono">{seen[index]!.power_label}</span>
                <small className={classes.lane} title={lane.unit.name}>
                  {lane.unit.name}
                </small>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(({ label, why, of }) => (
            <tr key={label}>
              <RowName label={label} why={why} />
              {seen.map((at, index) => {
                const text = of(at, lanes[index]!.sheet)
                return (
                  <td
                    key={lanes[index]!.unit.id}
                    data-row={label}
                    data-unknown={text === UNKNOWN || undefined}
                  >
                    {text}
                  </td>
                )
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}

const RowName = memo(function RowName({ label, why }: { label: string; why: string | undefined }) {
  return (
    <th scope="row">
      <Tooltip label={why} disabled={!why}>
        <span>{label}</span>
      </Tooltip>
    </th>
  )
})
