import { Chip, Group, Stack, Text } from '@mantine/core'
import type { Filter, Forecast, Problem, Shot } from '../api/client'
import { useKit } from './KitChoice'

type Props = {
  shot: Shot
  forecast: Forecast | undefined
  refusal: Problem | undefined
  /** What is before the lens was changed: what is held stays. */
  onChange: (shot: Shot) => void
}

/** What is before the lens: the grey of the strip, and on top of it whatever else of the kit is screwed on. */
export function BeforeLens({ shot, forecast, refusal, onChange }: Props) {
  const kit = useKit()
  const on = shot.camera.filters ?? []
  const owned = kit?.filters?.filter(({ used_as }) => used_as !== 'gel' && used_as !== 'nd') ?? []
  const all = [...owned, ...on.filter((one) => !owned.some((other) => other.id === one.id))]
  const greys = shot.camera.greys ?? []
  const put = (filters: Filter[]) => onChange({ ...shot, camera: { ...shot.camera, filters } })
  const exposure = forecast?.exposure
  return (
    <Stack gap="xs" data-testid="before-lens">
      <Group gap="xs">
        {all.map((filter) => (
          <Chip
            key={filter.id}
            size="xs"
            checked={on.some((one) => one.id === filter.id)}
            onChange={(checked) => put(checked ? [...on, filter] : on.filter((one) => one.id !== filter.id))}
          >
            {filter.name} −{filter.loss_stops}
          </Chip>
        ))}
        {all.length === 0 && (
          <Text size="sm">
            No polariser, colour or bellows is in the kit: enter one there, and it stands here.
          </Text>
        )}
      </Group>
      {exposure && (
        <Text size="sm">
          {exposure.before_lens
            ? `${exposure.before_lens}: −${exposure.filter_stops.toFixed(1)} stops in all, for flash and steady light alike.`
            : 'Nothing is before the lens.'}
        </Text>
      )}
      {refusal?.field?.startsWith('camera.filters') && (
        <Text size="xs" c="var(--dp-trouble)" role="alert">
          {refusal.detail}
        </Text>
      )}
      <Text size="xs" c="dimmed">
        {greys.length > 0
          ? `Grey is turned on the strip. At hand: ${greys.map(({ name }) => name).join(', ')}, up to three at once.`
          : 'Grey is turned on the strip. No grey filter is in the kit, so whole stops are offered.'}
      </Text>
    </Stack>
  )
}
