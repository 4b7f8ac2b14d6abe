import { SegmentedControl, Select, Text } from '@mantine/core'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useId, useState, type ReactNode } from 'react'
import { answered, client, Refusal, type Preferences } from '../api/client'
import { MaybeFigure } from '../controls/MaybeFigure'
import { choices } from '../words/choices'
import { length, signedStops } from '../words/figures'
import { isImperial } from '../words/preferred'
import classes from './Preferences.module.css'

/** How figures are written and typed, and what new shots begin with. Kept in the data file, at once. */
export function PreferencesScreen() {
  const queries = useQueryClient()
  const kept = useQuery({
    queryKey: ['preferences'],
    queryFn: () => answered(client.GET('/api/preferences')),
  })
  const [changed, setChanged] = useState<Preferences>()
  const wanted = changed ?? kept.data ?? {}
  const keep = useMutation({
    mutationFn: (body: Preferences) => answered(client.PUT('/api/preferences', { body })),
    // Shots, strips and sentences are written otherwise now.
    onSuccess: () => queries.invalidateQueries(),
  })
  const put = (change: Partial<Preferences>) => {
    const next = { ...wanted, ...change }
    setChanged(next)
    keep.mutate(next)
  }
  useEffect(() => {
    document.title = 'Preferences · Dash Pebble'
  }, [])
  const refused = (field: keyof Preferences) =>
    keep.error instanceof Refusal && keep.error.problem.field === field
      ? keep.error.problem.detail
      : undefined
  const zone = -new Date().getTimezoneOffset() / 60
  return (
    <main className={classes.screen}>
      <header className={classes.head}>
        <h1>Preferences</h1>
        <Text size="sm" c="dimmed" role="status">
          {keep.error ? keep.error.message : keep.isPending ? 'Keeping…' : 'Kept in the data file'}
        </Text>
      </header>
      <Row
        title="Lengths"
        said={`A light stands ${length(isImperial() ? 1.905 : 1.9)} away. A length typed without its unit is in ${isImperial() ? 'feet' : 'metres'}; with it, in any.`}
      >
        {(id) => (
          <SegmentedControl
            aria-labelledby={id}
            data={choices({ metric: 'metres', imperial: 'feet and inches' })}
            value={wanted.lengths ?? 'metric'}
            onChange={(lengths) => put({ lengths: lengths as 'metric' | 'imperial' })}
          />
        )}
      </Row>
      <Row
        title="Stops"
        said={`A rim stands at ${signedStops(4 / 3)}, the ambient at ${signedStops(-2)}. Sentences keep tenths, as meters do.`}
      >
        {(id) => (
          <SegmentedControl
            aria-labelledby={id}
            data={choices({ tenths: 'tenths', thirds: 'thirds', halves: 'halves' })}
            value={wanted.stops ?? 'tenths'}
            onChange={(stops) => put({ stops: stops as NonNullable<Preferences['stops']> })}
          />
        )}
      </Row>
      <Row title="Power dial" said="On units whose own dial is not entered in the Kit.">
        {(id) => (
          <SegmentedControl
            aria-labelledby={id}
            data={choices({ fractions: '1/16', numbers: '6.0', percent: '6.25 %', joules: '25 J' })}
            value={wanted.dial ?? 'fractions'}
            onChange={(dial) => put({ dial: dial as NonNullable<Preferences['dial']> })}
          />
        )}
      </Row>
      <Row
        title="Freezing time"
        said="What new shots begin with. Shots that exist keep theirs, on the Bench under the camera."
      >
        {(id) => (
          <Select
            aria-labelledby={id}
            w={340}
            allowDeselect={false}
            comboboxProps={{ keepMounted: false }}
            data={choices({
              t01: 't0.1, as pictures behave',
              t05: 't0.5, as leaflets print',
              t90: 't90, nine tenths of the light',
            })}
            value={wanted.school ?? 't01'}
            onChange={(school) => school && put({ school: school as NonNullable<Preferences['school']> })}
          />
        )}
      </Row>
      <Row
        title="Meter constant"
        said="C of the meter that lux and lux-seconds are counted by: 340 for a usual dome, about 250 for a flat receptor. Readings in f-numbers and guide numbers need none."
      >
        {(id) => (
          <MaybeFigure
            size="sm"
            w={160}
            aria-labelledby={id}
            placeholder="340"
            step={10}
            value={wanted.meter_c}
            error={refused('meter_c')}
            onChange={(meter_c) => put({ meter_c: meter_c ?? null })}
          />
        )}
      </Row>
      <Row
        title="Clock"
        said={`Against universal time, in hours, where a sky is begun. This machine says ${zone}, which counts while nothing is entered.`}
      >
        {(id) => (
          <MaybeFigure
            size="sm"
            w={160}
            aria-labelledby={id}
            placeholder="this machine's"
            step={1}
            value={wanted.utc_offset_min == null ? undefined : wanted.utc_offset_min / 60}
            error={refused('utc_offset_min')}
            onChange={(hours) => put({ utc_offset_min: hours === undefined ? null : Math.round(hours * 60) })}
          />
        )}
      </Row>
    </main>
  )
}

/** What is chosen, with an example of it beneath. */
function Row({
  title,
  said,
  children,
}: {
  title: string
  said: string
  children: (id: string) => ReactNode
}) {
  const id = useId()
  return (
    <section className={classes.row}>
      <h2 id={id}>{title}</h2>
      <div>
        {children(id)}
        <p>{said}</p>
      </div>
    </section>
  )
}
