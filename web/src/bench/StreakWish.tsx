import { Group, Select } from '@mantine/core'
import { useState } from 'react'
import type { Part, PartForecast } from '../api/client'
import { MaybeFigure } from '../controls/MaybeFigure'
import { choices } from '../words/choices'

type By = 'share' | 'length' | 'whole'
const WAYS = choices<By>({
  share: 'of the frame',
  length: 'of the scene',
  whole: 'as its movement',
})
/** The field that is typed into, by the way the wish is told. */
const TYPED = {
  share: { field: 'streak_share', suffix: ' of frame', step: 0.01 },
  length: { field: 'streak_m', suffix: ' m', step: 0.05 },
} as const

type Props = {
  part: Part
  /** What the forecast says of it: the wish the other way. */
  told: PartForecast | undefined
  error: (field: keyof Part) => string | undefined
  onChange: (change: Pick<Part, 'streak_share' | 'streak_m' | 'streak_whole'>) => void
}

const wished = (part: Part): By | undefined => {
  if (part.streak_whole) return 'whole'
  if (part.streak_m != null) return 'length'
  return part.streak_share == null ? undefined : 'share'
}

/** How long a streak shall be: as a share of the frame, in metres of the scene, or as long as the part's own movement. */
export function StreakWish({ part, told, error, onChange }: Props) {
  // Where nothing is wished yet, how it would be told is nobody's but this form's.
  const [meant, setMeant] = useState<By>('share')
  const by = wished(part) ?? meant
  const none = { streak_share: undefined, streak_m: undefined, streak_whole: false }
  const typed = by === 'whole' ? undefined : TYPED[by]
  // The same wish told the other way, as long as the forecast knows it.
  const same = {
    share: () => ({ streak_share: told?.wanted_streak_share ?? undefined }),
    length: () => ({ streak_m: told?.wanted_streak_m ?? undefined }),
    whole: () => ({ streak_whole: true }),
  }
  return (
    <Group gap={6} wrap="nowrap" align="end">
      {typed && (
        <MaybeFigure
          key={by}
          label="Streak wanted"
          suffix={typed.suffix}
          placeholder="how long?"
          step={typed.step}
          value={part[typed.field]}
          error={error(typed.field)}
          onChange={(long) => onChange({ ...none, [typed.field]: long })}
        />
      )}
      <Select
        size="xs"
        w={132}
        label={typed ? 'Told' : 'Streak wanted'}
        aria-label="How the streak is told"
        allowDeselect={false}
        data={WAYS}
        value={by}
        error={error('streak_whole')}
        comboboxProps={{ withinPortal: false }}
        onChange={(way) => {
          if (!way) return
          setMeant(way as By)
          onChange({ ...none, ...same[way as By]() })
        }}
      />
    </Group>
  )
}
