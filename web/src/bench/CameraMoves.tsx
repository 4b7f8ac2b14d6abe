import { SimpleGrid, Stack, Switch, Text } from '@mantine/core'
import type { Forecast, Movement, Problem, Shot } from '../api/client'
import { Figure } from '../controls/Figure'
import { percent, pixels } from '../words/figures'
import { goesAlong } from './movement/camera'

const STILL: Movement = { pan_m_s: 0, direction_deg: 0, shake_deg_s: 0, zoom_share: 0, swing_deg_s: 0 }

type Props = {
  shot: Shot
  forecast: Forecast | undefined
  refusal: Problem | undefined
  onChange: (shot: Shot) => void
}

/** White balance, and how the camera itself moves while the shutter is open. */
export function CameraMoves({ shot, forecast, refusal, onChange }: Props) {
  const movement = shot.camera.movement ?? STILL
  const put = (change: Partial<Movement>) => onChange(goesAlong(shot, change))
  const error = (field: string) =>
    refusal?.field === `camera.movement.${field}` ? refusal.detail : undefined
  const seen = forecast?.camera
  return (
    <Stack gap="xs">
      <SimpleGrid cols={3} spacing="xs">
        <Figure
          label="White balance"
          suffix=" K"
          step={100}
          value={shot.camera.white_balance_k ?? 5500}
          error={refusal?.field === 'camera.white_balance_k' ? refusal.detail : undefined}
          onChange={(white_balance_k) => onChange({ ...shot, camera: { ...shot.camera, white_balance_k } })}
        />
        <Figure
          label="Panning with"
          suffix=" m/s"
          step={0.5}
          value={movement.pan_m_s}
          error={error('pan_m_s')}
          onChange={(pan_m_s) => put({ pan_m_s })}
        />
        <Figure
          label="Towards"
          suffix="°"
          step={5}
          value={movement.direction_deg}
          error={error('direction_deg')}
          onChange={(direction_deg) => put({ direction_deg })}
        />
        <Figure
          label="Swinging"
          suffix=" °/s"
          step={5}
          value={movement.swing_deg_s ?? 0}
          error={error('swing_deg_s')}
          onChange={(swing_deg_s) => put({ swing_deg_s })}
        />
        <Figure
          label="Shake"
          suffix=" °/s"
          step={0.1}
          value={movement.shake_deg_s}
          error={error('shake_deg_s')}
          onChange={(shake_deg_s) => put({ shake_deg_s })}
        />
        <Figure
          label="Zooming in by"
          suffix=" of it"
          step={0.05}
          value={movement.zoom_share}
          error={error('zoom_share')}
          onChange={(zoom_share) => put({ zoom_share })}
        />
      </SimpleGrid>
      {seen && (
        <Switch
          size="xs"
          label={`Held by hand: ${seen.hand_held_deg_s.toFixed(1)}° a second by the rule of one over the focal length, until you know your own`}
          checked={movement.shake_deg_s > 0}
          onChange={(event) =>
            put({ shake_deg_s: event.currentTarget.checked ? +seen.hand_held_deg_s.toFixed(2) : 0 })
          }
        />
      )}
      <Text size="xs" c="dimmed">
        Panning follows: speeds of parts count against the aim. A swing and a zoom draw everything, also what
        stands; a part that shall not streak is judged with them.
        {seen && seen.background_travel_px > 0 && (
          <span className="mono">
            {' '}
            The background draws {percent(seen.background_share)} of the frame,{' '}
            {pixels(seen.background_travel_px)}.
          </span>
        )}
        {seen && seen.zoom_px > 0 && (
          <span className="mono"> Zooming draws {pixels(seen.zoom_px)} at the edge.</span>
        )}
      </Text>
    </Stack>
  )
}
