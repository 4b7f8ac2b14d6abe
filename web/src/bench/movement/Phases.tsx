import { ActionIcon, Button, Group, Text } from '@mantine/core'
import type { Part, Phase } from '../../api/client'
import { Figure } from '../../controls/Figure'
import { begun, DIRECTIONS, PHASES, type PhaseKind } from './phases'
import classes from './Movement.module.css'

type Props = {
  part: Part
  /** What cannot be of them, in a sentence. */
  refused: string | undefined
  onChange: (part: Part) => void
}

/** The phases of the part in hand, one after the other, each with its figures. */
export function Phases({ part, refused, onChange }: Props) {
  const phases = part.phases ?? []
  const put = (phases: Phase[], change: Partial<Part> = {}) => onChange({ ...part, ...change, phases })
  const add = (kind: PhaseKind) => {
    const direction_deg = DIRECTIONS[kind]
    put([...phases, begun(kind, part.speed_m_s)], direction_deg === undefined ? {} : { direction_deg })
  }
  const change = (index: number, to: Phase) => put(phases.map((one, at) => (at === index ? to : one)))
  return (
    <div className={classes.phases}>
      {phases.length === 0 && (
        <Text size="sm" c="dimmed">
          {part.name} goes straight on at {part.speed_m_s} m/s and never ends. Add what it does, one after the
          other.
        </Text>
      )}
      {phases.map((phase, index) => (
        <Group key={index} gap={6} wrap="nowrap" align="end" data-phase={phase.is}>
          <b className={classes.kind}>{PHASES[phase.is]}</b>
          <Fields phase={phase} onChange={(to) => change(index, to)} />
          <ActionIcon
            variant="subtle"
            color="gray"
            aria-label={`Take phase ${index + 1} away`}
            onClick={() => put(phases.filter((_, at) => at !== index))}
          >
            ×
          </ActionIcon>
        </Group>
      ))}
      {phases.some(({ is }) => DIRECTIONS[is] !== undefined) && (
        <Text size="xs" c="dimmed" data-testid="turned">
          What falls goes down the frame, a jump goes up: the direction of {part.name} is turned to{' '}
          {part.direction_deg}°.
        </Text>
      )}
      {refused && (
        <Text size="xs" role="alert" className={classes.refused}>
          {refused}
        </Text>
      )}
      <Group gap={4}>
        {(Object.keys(PHASES) as PhaseKind[]).map((kind) => (
          <Button
            key={kind}
            size="compact-xs"
            radius="xl"
            variant="default"
            data-add={kind}
            disabled={phases.length >= 8}
            onClick={() => add(kind)}
          >
            + {PHASES[kind].toLowerCase()}
          </Button>
        ))}
      </Group>
    </div>
  )
}

const W = 92

/** The figures of one phase. */
function Fields({ phase, onChange }: { phase: Phase; onChange: (phase: Phase) => void }) {
  const lasts = (seconds: number) => (
    <Figure
      w={W}
      label="Lasts"
      suffix=" s"
      step={0.05}
      value={seconds}
      onChange={(seconds) => onChange({ ...phase, seconds } as Phase)}
    />
  )
  const height = (height_m: number) => (
    <Figure
      w={W}
      label="Height"
      suffix=" m"
      step={0.05}
      value={height_m}
      onChange={(height_m) => onChange({ ...phase, height_m } as Phase)}
    />
  )
  switch (phase.is) {
    case 'rest':
      return lasts(phase.seconds)
    case 'fall':
    case 'jump':
      return height(phase.height_m)
    case 'line':
      return (
        <>
          <Figure
            w={W}
            label="From"
            suffix=" m/s"
            step={0.5}
            value={phase.from_m_s}
            onChange={(from_m_s) => onChange({ ...phase, from_m_s })}
          />
          <Figure
            w={W}
            label="To"
            suffix=" m/s"
            step={0.5}
            value={phase.to_m_s}
            onChange={(to_m_s) => onChange({ ...phase, to_m_s })}
          />
          {phase.seconds != null
            ? lasts(phase.seconds)
            : phase.metres != null && (
                <Figure
                  w={W}
                  label="Over"
                  suffix=" m"
                  step={0.1}
                  value={phase.metres}
                  onChange={(metres) => onChange({ ...phase, metres })}
                />
              )}
        </>
      )
    case 'arc':
      return (
        <>
          <Figure
            w={W}
            label="Radius"
            suffix=" m"
            step={0.05}
            value={phase.radius_m}
            onChange={(radius_m) => onChange({ ...phase, radius_m })}
          />
          <Figure
            w={W}
            label="Round"
            suffix="°"
            step={15}
            value={phase.to_deg - phase.from_deg}
            onChange={(round) => onChange({ ...phase, to_deg: phase.from_deg + round })}
          />
          {lasts(phase.seconds)}
        </>
      )
    case 'to_and_fro':
      return (
        <>
          <Figure
            w={W}
            label="Each side"
            suffix=" m"
            step={0.05}
            value={phase.amplitude_m}
            onChange={(amplitude_m) => onChange({ ...phase, amplitude_m })}
          />
          <Figure
            w={W}
            label="A second"
            step={0.25}
            value={phase.rate_hz}
            onChange={(rate_hz) => onChange({ ...phase, rate_hz })}
          />
          {lasts(phase.seconds)}
        </>
      )
  }
}
