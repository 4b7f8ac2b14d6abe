import { SegmentedControl, Select } from '@mantine/core'
import type { Forecast, Movement, Shot } from '../../api/client'
import { Figure } from '../../controls/Figure'
import { percent, pixels } from '../../words/figures'
import { goesAlong } from './camera'
import classes from './Movement.module.css'

type Props = {
  shot: Shot
  forecast: Forecast | undefined
  refused: (field: string) => string | undefined
  onChange: (shot: Shot) => void
}

/** How the camera goes along on purpose, whether what that draws is wanted, and what it draws of each part and of the rest. */
export function OnPurpose({ shot, forecast, refused, onChange }: Props) {
  const movement = shot.camera.movement
  const put = (change: Partial<Movement>) => onChange(goesAlong(shot, change))
  const seen = forecast?.camera
  return (
    <div className={classes.peak}>
      <div className={classes.fields}>
        <Select
          size="xs"
          label="Pans with"
          clearable
          placeholder="nothing"
          data={shot.parts.map(({ name }) => name)}
          value={movement?.follows ?? null}
          error={refused('follows')}
          comboboxProps={{ withinPortal: false }}
          onChange={(follows) => put({ follows: follows ?? undefined })}
        />
        <Figure
          label="Swings"
          suffix=" °/s"
          step={5}
          value={movement?.swing_deg_s ?? 0}
          error={refused('swing_deg_s')}
          onChange={(swing_deg_s) => put({ swing_deg_s })}
        />
        <Figure
          label="Zooms in by"
          suffix=" of it"
          step={0.05}
          value={movement?.zoom_share ?? 0}
          error={refused('zoom_share')}
          onChange={(zoom_share) => put({ zoom_share })}
        />
        <Figure
          label="Shakes"
          suffix=" °/s"
          step={0.1}
          value={movement?.shake_deg_s ?? 0}
          error={refused('shake_deg_s')}
          onChange={(shake_deg_s) => put({ shake_deg_s })}
        />
      </div>
      <SegmentedControl
        size="xs"
        aria-label="The streak of the background"
        data={[
          { value: 'unsaid', label: 'Background as it comes' },
          { value: 'true', label: 'shall streak' },
          { value: 'false', label: 'shall not' },
        ]}
        value={movement?.wanted == null ? 'unsaid' : String(movement.wanted)}
        onChange={(wanted) => put({ wanted: wanted === 'unsaid' ? undefined : wanted === 'true' })}
      />
      <table className={classes.tries}>
        <tbody>
          {forecast?.parts.map((part) => (
            <tr key={part.name}>
              <th>{part.name}</th>
              <td className="mono">{pixels(part.streak_px)} in all</td>
              <td className="mono">
                {part.by_camera_px == null ? '' : `${pixels(part.by_camera_px)} by the camera`}
              </td>
            </tr>
          ))}
          {seen && (
            <tr data-testid="background-streak">
              <th>Background</th>
              <td className="mono">{pixels(seen.background_travel_px)}</td>
              <td className="mono">
                {percent(seen.background_share)} of the frame
                {seen.zoom_px > 0 && `, ${pixels(seen.zoom_px)} at the edge`}
              </td>
            </tr>
          )}
        </tbody>
      </table>
    </div>
  )
}
