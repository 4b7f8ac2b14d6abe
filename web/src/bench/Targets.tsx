import { SegmentedControl, SimpleGrid, Stack, Text } from '@mantine/core'
import type { Forecast, Problem, Shot } from '../api/client'
import { Figure } from '../controls/Figure'
import { Meter } from './Meter'
import { MaybeFigure } from '../controls/MaybeFigure'
import { choices } from '../words/choices'
import { placed } from '../words/figures'

type Aims = Shot['targets']
type Props = {
  shot: Shot
  seen: Forecast['subject'] | undefined
  refusal: Problem | undefined
  onChange: (shot: Shot) => void
}

/** Where the light shall fall: who leads, how the subject is read, and what is wanted of each. */
export function Targets({ shot, seen, refusal, onChange }: Props) {
  const { targets } = shot
  const put = (change: Partial<Aims>) => onChange({ ...shot, targets: { ...targets, ...change } })
  const error = (field: keyof Aims) => (refusal?.field === `targets.${field}` ? refusal.detail : undefined)
  const daylight = targets.lead === 'daylight'
  return (
    <SimpleGrid cols={2} spacing="lg">
      <Stack gap="xs">
        <SegmentedControl
          size="xs"
          aria-label="Who leads"
          value={targets.lead ?? 'flash'}
          onChange={(lead) => put({ lead: lead as Aims['lead'] })}
          data={choices<NonNullable<Aims['lead']>>({ flash: 'Flash leads', daylight: 'Daylight leads' })}
        />
        <SegmentedControl
          size="xs"
          aria-label="Read by"
          value={targets.reads ?? 'lit_side'}
          onChange={(reads) => put({ reads: reads as Aims['reads'] })}
          data={choices<NonNullable<Aims['reads']>>({
            lit_side: 'Meter to the lit side',
            dome: 'Dome to the camera',
          })}
        />
        <SimpleGrid cols={3} spacing="xs">
          <Figure
            label={daylight ? 'Daylight on the subject' : 'The subject, all light'}
            suffix=" stops"
            step={0.1}
            value={targets.subject_stops}
            error={error('subject_stops')}
            onChange={(subject_stops) => put({ subject_stops })}
          />
          {!daylight && (
            <MaybeFigure
              label="Ambient on it"
              suffix=" stops"
              step={0.1}
              placeholder="as it comes"
              value={targets.ambient_stops}
              error={error('ambient_stops')}
              onChange={(ambient_stops) => put({ ambient_stops })}
            />
          )}
          <MaybeFigure
            label="Ambient behind"
            suffix=" stops"
            step={0.1}
            placeholder="as it comes"
            value={targets.background_stops}
            error={error('background_stops')}
            onChange={(background_stops) => put({ background_stops })}
          />
        </SimpleGrid>
        {seen && (
          <Text size="sm" className="mono">
            lit side {placed(seen.lit_side_stops)} · dome {placed(seen.dome_stops)} · cheeks{' '}
            {placed(seen.left_cheek_stops)} and {placed(seen.right_cheek_stops)}
            {seen.lighting_ratio && ` (${seen.lighting_ratio})`}
          </Text>
        )}
        {seen?.working_aperture && (
          <Text size="xs" c="dimmed">
            As it is lit now, {seen.working_aperture} would put it where it is wanted.
          </Text>
        )}
      </Stack>
      <Meter shot={shot} shows={seen?.meter} onChange={onChange} />
    </SimpleGrid>
  )
}
