import { memo } from 'react'
import type { FloorAnswer } from '../api/client'
import { Figure } from '../controls/Figure'
import classes from './Floor.module.css'

type Place = FloorAnswer['camera']

const SIDES = [
  ['x_m', 'Right'],
  ['y_m', 'Away'],
  ['z_m', 'Up'],
] as const

/** A place on the floor, typed. */
export function PlaceFields({ at, onPut }: { at: Place; onPut: (change: Partial<Place>) => void }) {
  return (
    <div className={classes.fields}>
      {SIDES.map(([side, label]) => (
        <SideField key={side} side={side} label={label} metres={+at[side].toFixed(2)} onPut={onPut} />
      ))}
    </div>
  )
}

type SideProps = {
  side: keyof Place
  label: string
  metres: number
  onPut: (change: Partial<Place>) => void
}

const SideField = memo(function SideField({ side, label, metres, onPut }: SideProps) {
  return (
    <Figure
      label={label}
      suffix=" m"
      step={0.1}
      value={metres}
      onChange={(metres) => onPut({ [side]: metres })}
    />
  )
})
