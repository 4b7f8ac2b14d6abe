import { ActionIcon, Button, Checkbox, Group, SimpleGrid, Stack, Switch, Text } from '@mantine/core'
import type { Forecast, Problem, SetLamp, Shot } from '../api/client'
import { Figure } from '../controls/Figure'
import { Choice, useKit } from './KitChoice'
import { Reaches } from './Reaches'
import { signedStops } from '../words/figures'

const NONE = { id: 'none', name: 'none' }

type Props = {
  shot: Shot
  forecast: Forecast | undefined
  refusal: Problem | undefined
  onChange: (shot: Shot) => void
}

/** Lamps that burn while the picture is taken: where they stand, their colour, and on what they draw. */
export function Lamps({ shot, forecast, refusal, onChange }: Props) {
  const kit = useKit()
  const lamps = shot.lamps ?? []
  const gels = kit?.filters?.filter((filter) => filter.used_as === 'gel') ?? []
  const put = (lamps: SetLamp[]) => onChange({ ...shot, lamps })
  const colour = forecast?.colour
  const start = kit?.lamps?.find((lamp) => !lamp.modelling)
  return (
    <Stack gap="xs" data-testid="lamps">
      <Group gap="xs" align="end" wrap="nowrap">
        <Figure
          label="Colour of the light that was read"
          suffix=" K"
          step={100}
          value={shot.ambient.kelvin ?? 5500}
          error={refusal?.field === 'ambient.kelvin' ? refusal.detail : undefined}
          onChange={(kelvin) => onChange({ ...shot, ambient: { ...shot.ambient, kelvin } })}
        />
        {colour && (
          <Text size="xs" className="mono" data-testid="trail-colour">
            trails {colour.trail_said}
          </Text>
        )}
      </Group>
      {lamps.map((lamp, index) => {
        const change = (to: Partial<SetLamp>) =>
          put(lamps.map((one, at) => (at === index ? { ...one, ...to } : one)))
        const error = (field: string) =>
          refusal?.field === `lamps[${index}].${field}` ? refusal.detail : undefined
        const seen = forecast?.lamps.find((one) => one.lamp === index)
        return (
          <Stack key={index} gap={4} data-lamp={index}>
            <SimpleGrid cols={4} spacing="xs">
              <Choice
                label="Lamp"
                items={kit?.lamps}
                value={lamp.lamp}
                onChange={(to) => change({ lamp: to })}
              />
              <Choice
                label="Gel"
                items={[NONE, ...gels]}
                value={lamp.gel ?? NONE}
                onChange={({ id }) => change({ gel: gels.find((gel) => gel.id === id) })}
              />
              <Figure
                label="Turned up"
                step={0.1}
                suffix=" of full"
                value={lamp.level_share}
                error={error('level_share')}
                onChange={(level_share) => change({ level_share })}
              />
              <Figure
                label="Away"
                step={0.1}
                suffix=" m"
                value={lamp.distance_m}
                error={error('distance_m')}
                onChange={(distance_m) => change({ distance_m })}
              />
            </SimpleGrid>
            <Group gap="sm">
              <Switch
                size="xs"
                label="Burns"
                checked={lamp.on}
                onChange={(event) => change({ on: event.currentTarget.checked })}
              />
              <Checkbox
                size="xs"
                label="Background"
                checked={lamp.lights_background}
                onChange={(event) => change({ lights_background: event.currentTarget.checked })}
              />
              <Reaches parts={shot.parts} misses={lamp.misses} onChange={(misses) => change({ misses })} />
              <Checkbox
                size="xs"
                label="Stands there"
                checked={!!lamp.stands}
                // Straight from the camera's side it gives what it was taken to give.
                onChange={(event) =>
                  change({
                    stands: event.currentTarget.checked ? { bearing_deg: 0, height_deg: 0 } : undefined,
                  })
                }
              />
              {lamp.stands && (
                <>
                  <Figure
                    w={92}
                    aria-label={`${lamp.lamp.name} round`}
                    suffix="° round"
                    step={5}
                    value={lamp.stands.bearing_deg}
                    error={error('stands.bearing_deg')}
                    onChange={(bearing_deg) => change({ stands: { ...lamp.stands!, bearing_deg } })}
                  />
                  <Figure
                    w={80}
                    aria-label={`${lamp.lamp.name} up`}
                    suffix="° up"
                    step={5}
                    value={lamp.stands.height_deg}
                    error={error('stands.height_deg')}
                    onChange={(height_deg) => change({ stands: { ...lamp.stands!, height_deg } })}
                  />
                </>
              )}
              <ActionIcon
                size="sm"
                variant="default"
                aria-label={`Take ${lamp.lamp.name} away`}
                onClick={() => put(lamps.filter((_, at) => at !== index))}
              >
                ×
              </ActionIcon>
            </Group>
            {seen && (
              <Text size="xs" c="dimmed" className="mono">
                {seen.placement_stops == null
                  ? 'no light'
                  : `${signedStops(seen.placement_stops)} on the subject`}{' '}
                · {seen.hue ?? `${Math.round(seen.kelvin)} K · ${signedStops(seen.mired, 0)} mired`}
                {seen.draws_on.length > 0 && ` · draws ${seen.draws_on.join(', ')}`}
              </Text>
            )}
          </Stack>
        )
      })}
      <Group justify="space-between">
        <Button
          size="xs"
          variant="default"
          data-add-lamp
          disabled={!start}
          onClick={() =>
            start &&
            put([
              ...lamps,
              { on: true, lamp: start, level_share: 1, distance_m: 3, lights_background: false, misses: [] },
            ])
          }
        >
          One more lamp
        </Button>
        <Text size="xs" c="dimmed">
          Lamps get hot: distance to cloth and gels as the makers say.
        </Text>
      </Group>
    </Stack>
  )
}
