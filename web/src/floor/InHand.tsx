import { Button } from '@mantine/core'
import { memo } from 'react'
import type { FloorAnswer, FloorRequest } from '../api/client'
import { length, signedStops } from '../words/figures'
import { keptAim } from './aim'
import { AimedAt } from './AimedAt'
import { FigureRows } from '../marks/FigureRows'
import { PlaceFields } from './PlaceFields'
import { useSteady } from '../shell/useSteady'
import { Tapes } from './Tapes'
import type { Carried } from './useFloor'
import classes from './Floor.module.css'

type Props = {
  seen: FloorAnswer
  light: number
  onCarry: (to: Carried) => void
  onSettle: () => void
  onTaped: (taped: FloorRequest['taped']) => void
}

const signed = (value: number) => (value < 0 ? `−${-value}` : `${value}`)

/** What the floor says of the light in hand: one figure a line, as it is taped and read. */
export const InHand = memo(function InHand({ seen, light, onCarry, onSettle, onTaped }: Props) {
  const of = seen.lights[light]
  const put = useSteady((change: Partial<Carried>) => {
    onCarry({ light, ...of!.at, ...change })
    onSettle()
  })
  const stand = useSteady((to: Partial<FloorAnswer['camera']>) => put({ ...to, ...keptAim(of!) }))
  const aim = useSteady((aim_m: NonNullable<Carried['aim_m']>) => put({ aim_m }))
  if (!of) return null
  const rows: [string, string][] = [
    ...(of.on_camera
      ? [['Sits', 'on the camera'] as [string, string]]
      : ([
          ['From the mark, on the floor', length(of.to_mark_m)],
          ['From the camera', `${length(of.to_camera_m)}, ${of.right ? 'right' : 'left'}`],
        ] as [string, string][])),
    [of.role === 'backdrop' ? 'To the background' : 'To the chest', length(of.distance_m)],
    ['Direction', `${signed(Math.round(of.bearing_deg))}° · ${of.clock} o'clock`],
    ['Looks down', `${Math.round(of.tilt_down_deg)}°`],
    ['A stop is lost', `${length(of.circle_m)} beside its aim`],
    ...(of.boom_says ? [['Boom, estimated', of.boom_says] as [string, string]] : []),
    ...(of.shadow ? [['Shadow', of.shadow] as [string, string]] : []),
    ...(of.reads ? [['A meter there reads', of.reads] as [string, string]] : []),
    ...(of.evenness
      ? [
          [
            'Over the area',
            `${signedStops(of.evenness.high_stops)} … ${signedStops(of.evenness.low_stops)}`,
          ] as [string, string],
        ]
      : []),
    ...(of.ballast_kg == null
      ? []
      : [
          ['Ballast, estimated', of.take_down ? 'take it down' : `${of.ballast_kg.toFixed(0)} kg`] as [
            string,
            string,
          ],
        ]),
  ]
  return (
    <section className={classes.panel} aria-label="The light in hand">
      <h2 className={classes.name}>
        {of.label} <small>{of.unit}</small>
      </h2>
      <FigureRows rows={rows} className={classes.figures} />
      {of.can_be_aimed && <AimedAt of={of} people={seen.people} chest={seen.chest_m} onAim={aim} />}
      {of.evens && (
        <Button
          size="compact-sm"
          radius="xl"
          variant="default"
          mb={8}
          data-do="even-out"
          onClick={() => put({ ...of.evens!.to, power: of.evens!.power })}
        >
          Even it out: {of.evens.says} · {of.evens.from_stops.toFixed(1)} → {of.evens.to_stops.toFixed(1)}{' '}
          stops
        </Button>
      )}
      {of.brings_in &&
        (of.brings_in.spoils == null ? (
          <Button
            size="compact-sm"
            radius="xl"
            variant="default"
            mb={8}
            data-do="bring-in"
            onClick={() => put({ ...of.brings_in!.to, power: of.brings_in!.power })}
          >
            Bring it in: {of.brings_in.says}
          </Button>
        ) : (
          <p className={classes.says}>
            Not nearer, {of.brings_in.says}: {of.brings_in.spoils}
          </p>
        ))}
      {!of.on_camera && (
        <>
          <PlaceFields at={of.at} onPut={stand} />
          <Tapes key={light} of={of} light={light} taped={seen.taped} onTaped={onTaped} />
        </>
      )}
    </section>
  )
})
