import { Group, Select } from '@mantine/core'
import type { Part } from '../api/client'
import { MaybeFigure } from '../controls/MaybeFigure'
import { choices } from '../words/choices'

type By = 'share' | 'length' | 'whole'
const WAYS = choices<By>({
  share: 'of the frame',
  length: 'of the scene',
  whole: 'as its movement',
})

type Props = {
  part: Part
  error: (field: keyof Part) => string | undefined
  onChange: (change: Pick<Part, 'streak_share' | 'streak_m' | 'streak_whole'>) => void
}

/** How long a streak shall be: as a share of the frame, in metres of the scene, or as long as the part's own movement. */
export function StreakWish({ part, error, onChange }: Props) {
  const by: By = part.streak_whole ? 'whole' : part.streak_m != null ? 'length' : 'share'
  const none = { streak_share: undefined, streak_m: undefined, streak_whole: false }
  return (
    <Group gap={6} wrap="nowrap" align="end">
      {by === 'share' && (
        <MaybeFigure
          label="Streak wanted"
          suffix=" of frame"
          placeholder="how long?"
          step={0.01}
          value={part.streak_share}
          error={error('streak_share')}
          onChange={(streak_share) => onChange({ ...none, streak_share })}
        />
      )}
      {by === 'length' && (
        <MaybeFigure
          label="Streak wanted"
          suffix=" m"
          placeholder="how long?"
          step={0.05}
          value={part.streak_m}
          error={error('streak_m')}
          onChange={(streak_m) => onChange({ ...none, streak_m })}
        />
      )}
      <Select
        size="xs"
        w={132}
        label={by === 'whole' ? 'Streak wanted' : 'Told'}
        aria-label="How the streak is told"
        allowDeselect={false}
        data={WAYS}
        value={by}
        error={error('streak_whole')}
        comboboxProps={{ withinPortal: false }}
        onChange={(way) =>
          onChange({
            ...none,
            ...(way === 'length' && { streak_m: 0.3 }),
            ...(way === 'whole' && { streak_whole: true }),
          })
        }
      />
    </Group>
  )
}
