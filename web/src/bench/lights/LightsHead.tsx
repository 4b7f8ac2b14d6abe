import { Button, Tooltip, UnstyledButton } from '@mantine/core'
import { Opened } from '../Bay'
import { withKey } from '../../commands/list'
import { lazy, memo, Suspense } from 'react'
import type { BenchAnswer, Moved, Problem, Shot } from '../../api/client'
import { ROLE_WORDS } from '../../marks/RoleMark'
import { Ways } from '../Ways'
import { LightChips } from './LightChips'
import { withLight, withOneMore, withoutLight } from './lights'
import classes from './Lights.module.css'

const LightForm = lazy(() => import('./LightForm').then(({ LightForm }) => ({ default: LightForm })))

type Props = {
  shot: Shot
  seen: BenchAnswer['forecast']['lights'] | undefined
  refusal: Problem | undefined
  chosen: number
  solo: number | undefined
  onChoose: (index: number) => void
  onSolo: (index: number | undefined) => void
  onChange: (shot: Shot) => void
  onMoved: (moved: Moved[]) => void
  /** Another way with the same light is taken. */
  onTake: (shot: Shot) => void
}

/** The flashes: which one is in hand, what it is, alone or muted. */
export const LightsHead = memo(function LightsHead(props: Props) {
  const { shot, seen, refusal, chosen, solo, onChoose, onSolo, onChange, onMoved, onTake } = props
  const light = shot.lights[chosen]!
  const about = refusal?.field?.startsWith(`lights[${chosen}].`) ? refusal : undefined
  return (
    <>
      <div className={classes.head}>
        <LightChips
          shot={shot}
          seen={seen}
          chosen={chosen}
          solo={solo}
          onChoose={onChoose}
          onAdd={() => {
            onChange(withOneMore(shot, chosen))
            onChoose(shot.lights.length)
          }}
        />
        <Ways shot={shot} onTake={onTake} />
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
                seen={seen?.[chosen]}
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
    </>
  )
})
