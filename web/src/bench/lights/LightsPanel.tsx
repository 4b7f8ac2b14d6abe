import { Button, Tooltip, UnstyledButton } from '@mantine/core'
import { Opened } from '../Bay'
import { withKey } from '../../commands/list'
import { lazy, Suspense, type ReactNode } from 'react'
import type { BenchAnswer, Moved, Problem, Shot } from '../../api/client'
import { ROLE_WORDS } from '../../marks/RoleMark'
import panel from '../Controls.module.css'
import { LightChips } from './LightChips'
import { withLight, withOneMore, withoutLight } from './lights'
import classes from './Lights.module.css'

const LightForm = lazy(() => import('./LightForm').then(({ LightForm }) => ({ default: LightForm })))

export type LightsProps = {
  shot: Shot
  answer: BenchAnswer | undefined
  refusal: Problem | undefined
  chosen: number
  solo: number | undefined
  onChoose: (index: number) => void
  onSolo: (index: number | undefined) => void
  onChange: (shot: Shot) => void
  onMoved: (moved: Moved[]) => void
}

/** The flashes: which one is in hand, alone or muted, and its controls. */
export function LightsPanel(props: LightsProps & { children: ReactNode; ways: ReactNode }) {
  const { shot, answer, refusal, chosen, solo, onChoose, onSolo, onChange, onMoved, children, ways } = props
  const light = shot.lights[chosen]!
  const about = refusal?.field?.startsWith(`lights[${chosen}].`) ? refusal : undefined
  return (
    <section className={panel.block} aria-label="Lights">
      <div className={classes.head}>
        <LightChips
          shot={shot}
          seen={answer?.forecast.lights}
          chosen={chosen}
          solo={solo}
          onChoose={onChoose}
          onAdd={() => {
            onChange(withOneMore(shot, chosen))
            onChoose(shot.lights.length)
          }}
        />
        {ways}
      </div>
      <h2 className={classes.title}>
        <span>
          {light.group} {ROLE_WORDS[light.role ?? 'key']}
        </span>
        <Opened width={400} side="left">
          <Opened.Target>
            <Button
              size="compact-xs"
              radius="xl"
              variant="default"
              className={classes.unit}
              data-choose="flash"
              data-refused={about ? true : undefined}
            >
              {light.heads && light.heads > 1 ? `${light.heads} × ` : ''}
              {light.unit.name} · {light.modifier.name}
            </Button>
          </Opened.Target>
          <Opened.Dropdown>
            <Suspense fallback={null}>
              <LightForm
                key={chosen}
                shot={shot}
                index={chosen}
                seen={answer?.forecast.lights[chosen]}
                problem={about}
                refusal={refusal}
                onChange={onChange}
                onMoved={onMoved}
                onRemove={
                  shot.lights.length > 1
                    ? () => {
                        onChoose(Math.max(0, chosen - 1))
                        onSolo(undefined)
                        onChange(withoutLight(shot, chosen))
                      }
                    : undefined
                }
              />
            </Suspense>
          </Opened.Dropdown>
        </Opened>
        <Tooltip label={withKey('solo', 'This light alone in the picture')}>
          <UnstyledButton
            className={classes.switch}
            aria-pressed={solo === chosen}
            data-choose="solo"
            onClick={() => onSolo(solo === chosen ? undefined : chosen)}
          >
            Solo
          </UnstyledButton>
        </Tooltip>
        <Tooltip label={withKey('mute', 'Off, and everything else as it is')}>
          <UnstyledButton
            className={classes.switch}
            aria-pressed={!light.on}
            data-choose="mute"
            onClick={() => onChange(withLight(shot, chosen, { on: !light.on }))}
          >
            Mute
          </UnstyledButton>
        </Tooltip>
      </h2>
      {children}
    </section>
  )
}
