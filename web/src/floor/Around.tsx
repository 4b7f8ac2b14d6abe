import { Button, Select } from '@mantine/core'
import { useMutation, useQuery } from '@tanstack/react-query'
import { answered, client, type FloorAnswer, type Shot } from '../api/client'
import { Figure } from '../controls/Figure'
import { MaybeFigure } from '../controls/MaybeFigure'
import classes from './Floor.module.css'

type Put = (change: Partial<Shot>) => void
type Props = { seen: FloorAnswer; shot: Shot; onChange: Put }

/** A room as large as most halls, to begin from: its walls are moved where they are. */
const A_ROOM = { left_m: -5, right_m: 5, near_m: -8, far_m: 8, ceiling_m: 4 }
/** Across the frame, over the mark, at a run: to begin from. */
const A_WAY = { from_m: [-4, 0], to_m: [4, 0], speed_m_s: 5 } satisfies NonNullable<Shot['way']>

/** The light of all on what is behind, and the sheet. */
export function Behind({ seen }: { seen: FloorAnswer }) {
  return (
    <section className={classes.panel} aria-label="Behind">
      <p className={classes.says} data-testid="behind">
        {seen.behind?.says ?? 'Nothing of what is behind is in the frame.'}
      </p>
      {seen.sheet && <p className={classes.says}>{seen.sheet.says}</p>}
      <ul className={classes.shadows} aria-label="Shadows">
        {seen.lights.map(
          (light) =>
            light.shadow && (
              <li key={light.label + light.bearing_deg}>
                Shadow of {light.label}: {light.shadow}
              </li>
            ),
        )}
      </ul>
    </section>
  )
}

/** The way somebody comes along, and when to press. */
export function Way({ seen, shot, onChange }: Props) {
  const way = shot.way
  if (!way) {
    return (
      <section className={classes.panel} aria-label="Way">
        <p className={classes.says}>Somebody comes through the light: along which way, how fast?</p>
        <Button size="compact-sm" radius="xl" variant="default" onClick={() => onChange({ way: A_WAY })}>
          Lay a way through the mark
        </Button>
      </section>
    )
  }
  const put = (change: Partial<typeof way>) => onChange({ way: { ...way, ...change } })
  const end = (name: 'from_m' | 'to_m', side: 0 | 1) => (to: number) =>
    put({ [name]: side === 0 ? [to, way[name][1]] : [way[name][0], to] })
  return (
    <section className={classes.panel} aria-label="Way">
      <p className={classes.says} data-testid="along">
        {seen.along?.says}
      </p>
      <div className={classes.fields}>
        <Figure
          label="From, right"
          suffix=" m"
          step={0.5}
          value={way.from_m[0]!}
          onChange={end('from_m', 0)}
        />
        <Figure
          label="From, away"
          suffix=" m"
          step={0.5}
          value={way.from_m[1]!}
          onChange={end('from_m', 1)}
        />
        <Figure
          label="Speed"
          suffix=" m/s"
          step={0.5}
          value={way.speed_m_s}
          onChange={(speed_m_s) => put({ speed_m_s })}
        />
        <Figure label="To, right" suffix=" m" step={0.5} value={way.to_m[0]!} onChange={end('to_m', 0)} />
        <Figure label="To, away" suffix=" m" step={0.5} value={way.to_m[1]!} onChange={end('to_m', 1)} />
      </div>
      <Button
        size="compact-xs"
        radius="xl"
        variant="default"
        mt={6}
        onClick={() => onChange({ way: undefined })}
      >
        No way
      </Button>
    </section>
  )
}

/** The sun by the compass, and the walls. */
export function SunAndRoom({ seen, shot, onChange }: Props) {
  const { sky, room } = shot
  return (
    <section className={classes.panel} aria-label="Sun and room">
      {seen.sun?.says.map((says) => (
        <p key={says} className={classes.says}>
          {says}
        </p>
      ))}
      {!sky && (
        <p className={classes.says}>No sun is told: give place and time under the sky on the Bench.</p>
      )}
      <div className={classes.fields}>
        {sky && (
          <MaybeFigure
            label="Camera looks"
            suffix="°"
            step={5}
            placeholder="by compass"
            value={sky.camera_looks_deg}
            onChange={(camera_looks_deg) => onChange({ sky: { ...sky, camera_looks_deg } })}
          />
        )}
        {room && (
          <>
            {(
              [
                ['left_m', 'Wall, left'],
                ['right_m', 'Wall, right'],
                ['near_m', 'Wall, camera'],
                ['far_m', 'Wall, behind'],
                ['ceiling_m', 'Ceiling'],
              ] as const
            ).map(([side, label]) => (
              <Figure
                key={side}
                label={label}
                suffix=" m"
                step={0.5}
                value={room[side]}
                onChange={(to) => onChange({ room: { ...room, [side]: to } })}
              />
            ))}
          </>
        )}
      </div>
      <Button
        size="compact-xs"
        radius="xl"
        variant="default"
        mt={6}
        onClick={() => onChange({ room: room ? undefined : A_ROOM })}
      >
        {room ? 'No walls' : 'Put walls around it'}
      </Button>
    </section>
  )
}

/** The lights of another shot on this one. */
export function Arrangements({ shot, onChange }: { shot: Shot; onChange: (shot: Shot) => void }) {
  const shots = useQuery({
    queryKey: ['shots', 'arrangements'],
    queryFn: () => answered(client.GET('/api/shots', { params: { query: {} } })),
  })
  const arrange = useMutation({
    mutationFn: async (id: string) => {
      const { shot: like } = await answered(client.GET('/api/shots/{id}', { params: { path: { id } } }))
      return answered(client.POST('/api/floor/arranged', { body: { shot, like } }))
    },
    onSuccess: onChange,
  })
  return (
    <Select
      size="xs"
      radius="xl"
      w={190}
      searchable
      aria-label="Lights as in another shot"
      placeholder="Lights as in …"
      value={null}
      error={arrange.error?.message}
      data={(shots.data?.shots ?? []).map((one) => ({ value: one.id, label: one.title }))}
      onChange={(id) => id && arrange.mutate(id)}
    />
  )
}
