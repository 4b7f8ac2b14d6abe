import { SegmentedControl } from '@mantine/core'
import { memo, useState } from 'react'
import type { FloorAnswer, FloorRequest } from '../api/client'
import { MaybeMetres } from './MaybeMetres'
import classes from './Floor.module.css'

type Taped = NonNullable<FloorRequest['taped']>
type Props = {
  of: FloorAnswer['lights'][number]
  light: number
  taped: FloorAnswer['taped']
  onTaped: (taped: Taped | undefined) => void
}

/** What was taped on the day: two distances along the floor, a third from the head to the chest. */
export const Tapes = memo(function Tapes({ of, light, taped, onTaped }: Props) {
  const [typed, setTyped] = useState<Partial<Taped>>({})
  const put = (change: Partial<Taped>) => {
    const now = { right: of.right, ...typed, ...change, light }
    setTyped(now)
    const { to_mark_m, to_camera_m } = now
    onTaped(to_mark_m == null || to_camera_m == null ? undefined : { ...now, to_mark_m, to_camera_m })
  }
  return (
    <div className={classes.tapes}>
      <div className={classes.fields}>
        <MaybeMetres
          label="Taped to mark"
          placeholder="on the day"
          value={typed.to_mark_m}
          onChange={(to_mark_m) => put({ to_mark_m })}
        />
        <MaybeMetres
          label="To camera"
          placeholder="on the day"
          value={typed.to_camera_m}
          onChange={(to_camera_m) => put({ to_camera_m })}
        />
        <MaybeMetres
          label={of.role === 'backdrop' ? 'Head to backdrop' : 'Head to chest'}
          placeholder="a third"
          value={typed.to_chest_m}
          onChange={(to_chest_m) => put({ to_chest_m })}
        />
      </div>
      {taped && (
        <>
          <SegmentedControl
            size="xs"
            radius="xl"
            mt={4}
            aria-label="Which side"
            value={(typed.right ?? of.right) ? 'right' : 'left'}
            data={[
              { value: 'left', label: "camera's left" },
              { value: 'right', label: "camera's right" },
            ]}
            onChange={(side) => put({ right: side === 'right' })}
          />
          <p className={classes.says} data-testid="taped">
            {taped.says}
          </p>
        </>
      )}
    </div>
  )
})
