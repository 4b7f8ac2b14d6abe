import { SimpleGrid, Stack, Switch } from '@mantine/core'
import type { Forecast, LightForecast, Problem, Shot } from '../api/client'
import { Figure } from '../controls/Figure'
import { MaybeFigure } from '../controls/MaybeFigure'
import classes from './Burst.module.css'

type Meant = NonNullable<Shot['burst']>
type Props = {
  shot: Shot
  forecast: Forecast | undefined
  refusal: Problem | undefined
  onChange: (shot: Shot) => void
}

const FIRST: Meant = { frames: 6, per_second: 5 }

/** Frames in a row: how many, how fast, for how long, and what each unit gives of them. */
export function Burst({ shot, forecast, refusal, onChange }: Props) {
  const { burst } = shot
  const put = (change: Partial<Meant>) => onChange({ ...shot, burst: { ...(burst ?? FIRST), ...change } })
  const error = (field: keyof Meant) => (refusal?.field === `burst.${field}` ? refusal.detail : undefined)
  return (
    <Stack gap="xs">
      <Switch
        size="xs"
        label="Several frames in a row"
        checked={!!burst}
        onChange={(event) => onChange({ ...shot, burst: event.currentTarget.checked ? FIRST : undefined })}
      />
      {burst && (
        <SimpleGrid cols={3} spacing="xs">
          <Figure
            label="Frames"
            min={1}
            value={burst.frames}
            error={error('frames')}
            onChange={(frames) => put({ frames: Math.trunc(frames) })}
          />
          <Figure
            label="A second"
            step={0.5}
            value={burst.per_second}
            error={error('per_second')}
            onChange={(per_second) => put({ per_second })}
          />
          <MaybeFigure
            label="The action lasts"
            suffix=" s"
            step={0.1}
            value={burst.action_s}
            error={error('action_s')}
            onChange={(action_s) => put({ action_s })}
          />
        </SimpleGrid>
      )}
      {forecast?.lights
        .filter((light) => light.fires)
        .map((light) => (
          <Frames key={light.label} light={light} />
        ))}
    </Stack>
  )
}

/** What one unit gives of a burst: a bar a frame, as high as its light; a frame without it is a gap with a cross. */
function Frames({ light }: { light: LightForecast }) {
  const { frames_stops: frames, said } = light.supply
  return (
    <div className={classes.unit}>
      <b>{light.label}</b>
      {frames.length > 1 && (
        <ol className={classes.frames} aria-label={`Frames of ${light.label}`}>
          {frames.map((loss, index) => (
            <li
              key={index}
              data-frame={loss == null ? 'missing' : loss < 0 ? 'dim' : 'whole'}
              style={{ '--light': loss == null ? 0 : 2 ** loss } as React.CSSProperties}
              aria-label={`${index + 1}: ${loss == null ? 'missing' : loss < 0 ? `dim by ${(-loss).toFixed(1)} stops` : 'whole'}`}
            />
          ))}
        </ol>
      )}
      <span>{said || 'nobody has written down what it gives'}</span>
    </div>
  )
}
