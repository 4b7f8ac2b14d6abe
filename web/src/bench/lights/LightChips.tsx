import { Tooltip, UnstyledButton } from '@mantine/core'
import type { Flash, LightForecast, Shot } from '../../api/client'
import { RoleMark, ROLE_WORDS } from '../../marks/RoleMark'
import { signedStops } from '../../words/figures'
import { MOST_LIGHTS } from './lights'
import classes from './Lights.module.css'

type Props = {
  shot: Shot
  seen: LightForecast[] | undefined
  chosen: number
  solo: number | undefined
  onChoose: (index: number) => void
  onAdd: () => void
}

/** What a light does, in a line: in the frame, what a meter reads, and what its unit has to give. */
const said = (light: Flash, seen: LightForecast | undefined, placed: string): string =>
  [
    `${seen?.spoken ?? light.unit.name}: ${seen?.silent ?? `${placed} in the frame`}`,
    seen?.fires && seen.flash.meter && `a meter on the set reads ${seen.flash.meter}`,
    seen?.ratio && `${seen.ratio} of the key`,
    seen?.fires && seen.supply.said,
  ]
    .filter(Boolean)
    .join(', ')

/** All flashes of the set, each with where it stands; the one in hand is raised. */
export function LightChips({ shot, seen, chosen, solo, onChoose, onAdd }: Props) {
  const few = shot.lights.length <= 3
  return (
    <div className={classes.chips} data-many={shot.lights.length > 4 || undefined}>
      <div className={classes.list} role="tablist" aria-label="Lights">
        {shot.lights.map((light, index) => {
          const result = seen?.[index]
          const at = result?.flash.in_frame_stops
          const placed = at == null ? (result?.silent ? 'off' : 'dark') : signedStops(at)
          const silent = light.on && result && !result.fires
          return (
            <Tooltip key={index} label={said(light, result, placed)} multiline maw={360}>
              <UnstyledButton
                role="tab"
                className={classes.chip}
                data-light={index}
                data-state={silent ? 'silent' : light.on ? undefined : 'off'}
                data-alone={solo === index || undefined}
                aria-selected={index === chosen}
                onClick={() => onChoose(index)}
              >
                <RoleMark role={light.role ?? 'key'} />
                <b>{light.group}</b>
                {few && <span className="mono">{placed}</span>}
                <span className="hidden-text">
                  {' '}
                  {ROLE_WORDS[light.role ?? 'key']}, {result?.silent ?? placed}
                </span>
              </UnstyledButton>
            </Tooltip>
          )
        })}
      </div>
      {shot.lights.length < MOST_LIGHTS && (
        <Tooltip label="One more light, like this one">
          <UnstyledButton className={classes.chip} data-add aria-label="Add a light" onClick={onAdd}>
            +
          </UnstyledButton>
        </Tooltip>
      )}
    </div>
  )
}
