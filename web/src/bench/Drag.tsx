import { Button, Select, SimpleGrid, Text } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { BaySheet } from './Bay'
import { answered, client, Refusal, type DragAnswer, type Shot } from '../api/client'
import { Figure } from '../controls/Figure'
import { SeverityMark } from '../marks/SeverityMark'
import { applied } from '../api/applied'
import { Side } from './Side'
import { axisTime, percent, signedStops } from '../words/figures'
import classes from './Drag.module.css'

const BY = { filter: 'By filter', aperture: 'By aperture', iso: 'By ISO' } as Record<string, string>

const SIDES = [
  { sync: 'front', name: 'Front sync', sharp: 'start' },
  { sync: 'rear', name: 'Rear sync', sharp: 'end' },
] as const

type Props = {
  shot: Shot
  /** Where the steady light falls now. */
  ambient: number | undefined
  onTake: (shot: Shot) => void
  onClose: () => void
}

/** A shutter dragged on purpose: how long the streak, how bright the steady light, and what that takes. */
export function Drag({ shot, ambient, onTake, onClose }: Props) {
  const first = Math.max(
    0,
    shot.parts.findIndex((part) => part.intent === 'dash'),
  )
  const [part, setPart] = useState(first)
  const [share, setShare] = useState(shot.parts[first]?.streak_share ?? 0.15)
  const [stops, setStops] = useState(Math.round((ambient ?? -2) * 10) / 10)
  const [road, setRoad] = useState(0)
  const body = { shot, wish: { part, share, ambient_stops: stops } }
  const { data, error } = useQuery({
    queryKey: ['drag', body],
    queryFn: () => answered(client.POST('/api/drag', { body })),
    enabled: shot.parts.length > 0,
    gcTime: 0,
    retry: false,
    placeholderData: (before: DragAnswer | undefined) => before,
  })
  const chosen = error ? undefined : data?.roads[road]
  const wish = (field: string) =>
    error instanceof Refusal && error.problem.field === field ? error.problem.detail : undefined
  const to = (sync: 'front' | 'rear') => {
    const turned = applied(shot, chosen?.changes ?? [])
    const lights = turned.lights.map((light) => ({ ...light, sync }))
    const parts = turned.parts.map((one, at) => (at === part ? { ...one, streak_share: share } : one))
    return { ...turned, lights, parts }
  }
  return (
    <BaySheet title="Drag the shutter" onClose={onClose}>
      {shot.parts.length === 0 ? (
        <Text size="sm">Name a part first: something has to move.</Text>
      ) : (
        <div className={classes.drag} data-testid="drag">
          <div className={classes.wish}>
            <Select
              size="xs"
              label="What draws"
              allowDeselect={false}
              data={shot.parts.map(({ name }, index) => ({ value: String(index), label: name }))}
              value={String(part)}
              error={wish('part')}
              onChange={(index) => index && setPart(Number(index))}
            />
            <Figure
              label="Streak"
              suffix=" of the frame"
              step={0.01}
              value={share}
              error={wish('share')}
              onChange={setShare}
            />
            <Figure
              label="Steady light at"
              suffix=" stops"
              step={0.5}
              value={stops}
              error={wish('ambient_stops')}
              onChange={setStops}
            />
          </div>
          {!error && data && (
            <p className={classes.said}>
              The length asks for <b>{data.streak_label}</b>
              {data.ambient_label && (
                <>
                  , the steady light for <b>{data.ambient_label}</b>: the light must change by{' '}
                  <b>{signedStops(data.light_change_stops ?? 0)}</b> stops, and the flash the other way
                </>
              )}
              . Pressed when you see it move, it has gone {percent(data.reaction_share)} of the frame by then.
            </p>
          )}
          {error && !(error instanceof Refusal) && <Text size="sm">{error.message}</Text>}
          <SimpleGrid cols={3} spacing="xs">
            {!error &&
              data?.roads.map((one, index) => (
                <button
                  key={one.by}
                  type="button"
                  className={classes.road}
                  aria-pressed={index === road}
                  data-road={one.by}
                  onClick={() => setRoad(index)}
                >
                  <b>
                    <SeverityMark severity={one.not ? 'trouble' : 'fine'} size={14} /> {BY[one.by]}
                  </b>
                  <span className="mono">{one.exposure}</span>
                  <span>{one.not ?? (one.said || 'nothing to turn')}</span>
                  <small>
                    streak {percent(one.streak_share)}, steady light{' '}
                    {one.ambient_stops == null ? 'none' : signedStops(one.ambient_stops)},{' '}
                    {one.spare_s >= 0 ? 'open' : 'closed'} {axisTime(Math.abs(+one.spare_s.toPrecision(2)))}{' '}
                    {one.spare_s >= 0 ? 'longer than the streak' : 'before its end'}
                  </small>
                </button>
              ))}
          </SimpleGrid>
          {chosen && (
            <>
              <p className={classes.said}>
                {chosen.also.length === 0
                  ? 'Nothing else will draw.'
                  : `Also draws: ${chosen.also
                      .map(
                        (one) =>
                          `${one.name} ${percent(one.share)}, ${one.visibility}${one.wanted ? '' : ' (not wanted)'}`,
                      )
                      .join(' · ')}.`}
              </p>
              <SimpleGrid cols={2} spacing="md" maw={930}>
                {SIDES.map(({ sync, name, sharp }) => {
                  const at = sync === 'front' ? chosen.front_s : chosen.rear_s
                  return (
                    <Side
                      key={sync}
                      title={`${name} · fires at ${axisTime(+at.toPrecision(4))}, sharp at the ${sharp}`}
                      shot={to(sync)}
                    >
                      <Button size="xs" data-take={sync} onClick={() => onTake(to(sync))}>
                        Take this
                      </Button>
                    </Side>
                  )
                })}
              </SimpleGrid>
            </>
          )}
        </div>
      )}
    </BaySheet>
  )
}
