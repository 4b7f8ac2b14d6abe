import { Button, UnstyledButton } from '@mantine/core'
import { Opened } from './Bay'
import { lazy, memo, Suspense, useState } from 'react'
import type { Part, PartForecast, Problem, Shot } from '../api/client'
import { IntentMark, INTENT_WORDS } from '../marks/IntentMark'
import { percent, pixels } from '../words/figures'
import classes from './PartChips.module.css'

const PartForm = lazy(() => import('./PartForm').then(({ PartForm }) => ({ default: PartForm })))

const STATE_WORDS = { met: 'as intended', near: 'near', missed: 'missed' } as const
const STATE_SIGNS = { near: '≈', missed: '!' } as const
const NEW_PART: Part = {
  name: 'Hand',
  intent: 'pebble',
  drawn_as: 'card',
  speed_m_s: 3,
  direction_deg: 0,
  out_of_plane_deg: 0,
  size_m: 0.12,
  reflectance: 0.36,
  flash_offset_stops: 0,
  ambient_offset_stops: 0,
}

type Props = {
  parts: Part[]
  camera: Shot['camera']
  /** The shot as it is, whenever it is asked for. */
  shotNow: () => Shot
  seen: PartForecast[] | undefined
  /** The part that is looked at, by its place. */
  looked: number | undefined
  refusal: Problem | undefined
  onChange: (parts: Part[]) => void
}

/** The parts of the subject, each with its intent, what becomes of it, and whether that is as intended. */
export const PartChips = memo(function PartChips({
  parts,
  camera,
  shotNow,
  seen,
  looked,
  refusal,
  onChange,
}: Props) {
  const [open, setOpen] = useState<number>()
  const many = parts.length > 3
  const replace = (index: number, part: Part) => onChange(parts.map((old, at) => (at === index ? part : old)))
  const add = () => {
    const taken = new Set(parts.map((part) => part.name))
    const name =
      ['Hand', 'Torso', 'Feet', 'Ball', 'Hair'].find((one) => !taken.has(one)) ?? `Part ${parts.length + 1}`
    onChange([...parts, { ...NEW_PART, name }])
    setOpen(parts.length)
  }
  return (
    <div className={classes.chips} role="group" aria-label="Parts" data-many={many || undefined}>
      {parts.map((part, index) => {
        const result = seen?.[index]?.intent === part.intent ? seen[index] : undefined
        const number =
          result && (part.intent === 'dash' ? percent(result.streak_share) : pixels(result.blur_px))
        return (
          <Opened
            key={index}
            opened={open === index}
            onChange={(to) => !to && setOpen(undefined)}
            width={600}
            side="left"
          >
            <Opened.Target>
              <UnstyledButton
                className={classes.chip}
                data-state={result?.state}
                data-part={part.name}
                data-looked={looked === index || undefined}
                onClick={() => setOpen(open === index ? undefined : index)}
              >
                <IntentMark intent={part.intent} />
                <b>{part.name}</b> <span className="mono">{number ?? '…'}</span>
                {result && result.state !== 'met' && (
                  <span className={classes.state} data-state={result.state} title={STATE_WORDS[result.state]}>
                    {/* Of many a sign, so that all of them stay in sight. */}
                    {many ? STATE_SIGNS[result.state] : STATE_WORDS[result.state]}
                    {many && <span className="hidden-text">{STATE_WORDS[result.state]}</span>}
                  </span>
                )}
                <span className="hidden-text">
                  , {part.intent}, {INTENT_WORDS[part.intent]}
                </span>
              </UnstyledButton>
            </Opened.Target>
            <Opened.Dropdown>
              <Suspense fallback={null}>
                <PartForm
                  part={part}
                  camera={camera}
                  shotNow={shotNow}
                  seen={result}
                  problem={refusal?.field?.startsWith(`parts[${index}].`) ? refusal : undefined}
                  onChange={(to) => replace(index, to)}
                  onRemove={() => {
                    setOpen(undefined)
                    onChange(parts.filter((_, at) => at !== index))
                  }}
                />
              </Suspense>
            </Opened.Dropdown>
          </Opened>
        )
      })}
      <Button
        size="compact-sm"
        radius="xl"
        variant="default"
        className={classes.add}
        onClick={add}
        aria-label="Add a part"
      >
        {parts.length > 2 ? '+' : '+ part'}
      </Button>
    </div>
  )
})
