import { SegmentedControl, Text } from '@mantine/core'
import { useState } from 'react'
import type { Forecast, LanesAnswer, Problem, Shot, WhenTaken } from '../../api/client'
import { BaySheet } from '../Bay'
import { Lanes } from './Lanes'
import { OnPurpose } from './OnPurpose'
import { Peak } from './Peak'
import { Phases } from './Phases'
import { WholeAction } from './WholeAction'
import classes from './Movement.module.css'

const TABS = [
  { value: 'phases', label: 'Phases' },
  { value: 'action', label: 'Whole action' },
  { value: 'peak', label: 'The peak' },
  { value: 'camera', label: 'Camera' },
] as const
type Tab = (typeof TABS)[number]['value']

type Props = {
  shot: Shot
  lanes: LanesAnswer | undefined
  forecast: Forecast | undefined
  refusal: Problem | undefined
  at: number | undefined
  onAt: (at: number) => void
  onChange: (shot: Shot) => void
  onClose: () => void
}

/** What happens against time: a lane for each part, the open shutter and the flashes in it, and what is looked at. */
export function MovementSheet({ shot, lanes, forecast, refusal, at, onAt, onChange, onClose }: Props) {
  const [tab, setTab] = useState<Tab>(shot.moment?.jump_m != null ? 'peak' : 'phases')
  const [inHand, setInHand] = useState(0)
  const part = Math.min(inHand, shot.parts.length - 1)
  const refused = (place: string) => (field: string) =>
    refusal?.field === `${place}.${field}` ? refusal.detail : undefined
  const when = (moment: WhenTaken) => onChange({ ...shot, moment })
  const now = at ?? lanes?.flashes[0]?.at_s ?? lanes?.opens_s ?? 0
  return (
    <BaySheet title="Movement in time" onClose={onClose}>
      {shot.parts.length === 0 || !lanes ? (
        <Text size="sm">
          {shot.parts.length === 0 ? 'Name a part first: something has to move.' : (refusal?.detail ?? '…')}
        </Text>
      ) : (
        <div className={classes.movement} data-testid="movement">
          <Lanes
            shot={shot}
            lanes={lanes}
            part={part}
            onPart={setInHand}
            at={now}
            onAt={onAt}
            onChange={onChange}
          />
          <div className={classes.side}>
            <SegmentedControl
              size="xs"
              radius="xl"
              fullWidth
              aria-label="What of it"
              data={[...TABS]}
              value={tab}
              onChange={(tab) => setTab(tab as Tab)}
            />
            <div className={classes.told}>
              {tab === 'phases' && (
                <Phases
                  key={part}
                  part={shot.parts[part]!}
                  refused={refusal?.field?.startsWith(`parts[${part}].phases`) ? refusal.detail : undefined}
                  onChange={(to) =>
                    onChange({ ...shot, parts: shot.parts.map((one, index) => (index === part ? to : one)) })
                  }
                />
              )}
              {tab === 'action' && (
                <WholeAction shot={shot} lanes={lanes} refused={refused('moment')} onChange={when} />
              )}
              {tab === 'peak' && (
                <Peak shot={shot} lanes={lanes} refused={refused('moment')} onChange={when} />
              )}
              {tab === 'camera' && (
                <OnPurpose
                  shot={shot}
                  forecast={forecast}
                  refused={refused('camera.movement')}
                  onChange={onChange}
                />
              )}
            </div>
          </div>
        </div>
      )}
    </BaySheet>
  )
}
