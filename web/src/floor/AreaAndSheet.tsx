import { Button } from '@mantine/core'
import type { ReactNode } from 'react'
import type { Shot } from '../api/client'
import { Figure } from '../controls/Figure'
import { MaybeFigure } from '../controls/MaybeFigure'
import { MaybeMetres } from './MaybeMetres'
import { rectangle, type Area } from './outline'
import { useWhole } from './whole'
import classes from './Floor.module.css'

type Sheet = Shot['sheet']
type Props = {
  area: Area
  sheet: Sheet
  gust: number | undefined
  onChange: (change: Pick<Shot, 'area'> | Pick<Shot, 'sheet'>) => void
  onGust: (gust: number | undefined) => void
  /** What else the wind depends on. */
  children?: ReactNode
}

/** About its own middle, which stays where it is. */
const wide = (from: number, to: number, by: number): [number, number] => [
  (from + to - by) / 2,
  (from + to + by) / 2,
]

/** Where somebody will be, what hangs behind, and the wind. */
export function AreaAndSheet({ area, sheet, gust, onChange, onGust, children }: Props) {
  const put = (change: Partial<Area>) => onChange({ area: { ...area, ...change } })
  return (
    <div className={classes.fields}>
      <Figure
        label="Area, wide"
        suffix=" m"
        step={0.5}
        value={+(area.right_m - area.left_m).toFixed(3)}
        onChange={(by) => {
          const [left_m, right_m] = wide(area.left_m, area.right_m, by)
          put({ left_m, right_m })
        }}
      />
      <Figure
        label="Deep"
        suffix=" m"
        step={0.5}
        value={+(area.far_m - area.near_m).toFixed(3)}
        onChange={(by) => {
          const [near_m, far_m] = wide(area.near_m, area.far_m, by)
          put({ near_m, far_m })
        }}
      />
      {!!area.corners?.length && (
        <Button
          size="xs"
          variant="default"
          className={classes.shape}
          onClick={() => onChange({ area: rectangle(area) })}
        >
          {area.corners.length} corners · as a rectangle
        </Button>
      )}
      <Figure label="From" suffix=" m" step={0.1} value={area.low_m} onChange={(low_m) => put({ low_m })} />
      <Figure
        label="Up to"
        suffix=" m"
        step={0.1}
        value={area.high_m}
        onChange={(high_m) => put({ high_m })}
      />
      <SheetBehind sheet={sheet} onChange={(sheet) => onChange({ sheet })} />
      <MaybeFigure label="Gust" suffix=" m/s" step={1} placeholder="no wind" value={gust} onChange={onGust} />
      {children}
    </div>
  )
}

/** A sheet is one when both of its sides are known. */
function SheetBehind({ sheet, onChange }: { sheet: Sheet; onChange: (sheet: Sheet) => void }) {
  const { known, put } = useWhole(sheet, ['width_m', 'height_m'], onChange)
  return (
    <>
      <MaybeMetres
        label="Sheet, wide"
        placeholder="none"
        value={known.width_m}
        onChange={(width_m) => put({ width_m })}
      />
      <MaybeMetres
        label="Sheet, high"
        placeholder={known.width_m == null ? 'none' : 'how high?'}
        value={known.height_m}
        onChange={(height_m) => put({ height_m })}
      />
    </>
  )
}
