import { memo } from 'react'
import { Button, Checkbox } from '@mantine/core'
import type { FloorAnswer, Shot } from '../api/client'
import { length } from '../words/figures'
import { FigureRows } from '../marks/FigureRows'
import { PlaceFields } from './PlaceFields'
import { SMALL } from './small'
import type { LampTo } from './useFloor'
import classes from './Floor.module.css'

type Lamp = FloorAnswer['lamps'][number]
type Props = {
  seen: FloorAnswer
  shot: Shot
  onPut: (change: Partial<Shot>) => void
  onCarry: (to: LampTo) => void
}

/** The steady lamps: where they stand, and what they give. */
export const Lamps = memo(function Lamps({ seen, shot, onPut, onCarry }: Props) {
  const [right, away, up] = seen.chest_m as [number, number, number]
  const change = (index: number, to: Partial<NonNullable<Shot['lamps']>[number]>) =>
    onPut({ lamps: shot.lamps?.map((lamp, at) => (at === index ? { ...lamp, ...to } : lamp)) })
  return (
    <section className={classes.panel} aria-label="Lamps">
      {seen.lamps.map((lamp, index) => (
        <div key={index} className={classes.lampInHand} data-lamp={lamp.name}>
          <h2 className={classes.name}>
            {lamp.name} <small>{lamp.on ? lamp.turned_up_says : 'off'}</small>
          </h2>
          <Standing
            lamp={lamp}
            onCarry={(to) => onCarry({ lamp: index, ...to })}
            // Straight before the subject it gives what it was taken to give.
            onStand={() => onCarry({ lamp: index, x_m: right, y_m: away - lamp.distance_m, z_m: up })}
            onAnywhere={() => change(index, { stands: undefined })}
            onInSet={(in_set) => change(index, { stands: { ...shot.lamps![index]!.stands!, in_set } })}
          />
        </div>
      ))}
    </section>
  )
})

type StandingProps = {
  lamp: Lamp
  onCarry: (to: Omit<LampTo, 'lamp'>) => void
  onStand: () => void
  onAnywhere: () => void
  onInSet: (in_set: boolean) => void
}

function Standing({ lamp, onCarry, onStand, onAnywhere, onInSet }: StandingProps) {
  const { stands } = lamp
  if (!stands)
    return (
      <>
        <p className={classes.says}>
          {length(lamp.distance_m)} from the subject, nobody said where
          {lamp.gives_says && `: ${lamp.gives_says} on the subject, as from the camera's side`}.
        </p>
        <Button {...SMALL} onClick={onStand}>
          Put it on the floor
        </Button>
      </>
    )
  const rows: [string, string][] = [
    ['From the mark, on the floor', length(stands.to_mark_m)],
    ['From the camera', `${length(stands.to_camera_m)}, ${stands.right ? 'right' : 'left'}`],
    ['Direction', `${stands.clock} o'clock`],
    ...(lamp.gives_says ? [['On the subject', lamp.gives_says] as [string, string]] : []),
  ]
  return (
    <>
      <FigureRows rows={rows} className={classes.figures} />
      <PlaceFields at={stands.at} onPut={(to) => onCarry({ ...stands.at, ...to })} />
      <div className={classes.lampChoices}>
        <Checkbox
          size="xs"
          label="Belongs to the picture"
          checked={stands.in_set}
          onChange={(event) => onInSet(event.currentTarget.checked)}
        />
        <Button {...SMALL} onClick={onAnywhere}>
          Off the floor
        </Button>
      </div>
    </>
  )
}
