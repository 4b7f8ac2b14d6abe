import { Button, Group, Select, Stack, Text } from '@mantine/core'
import type { FlashUnit } from '../api/client'
import { Figure } from '../controls/Figure'
import { choices } from '../words/choices'

export type Correction = NonNullable<FlashUnit['corrections']>[number]

const WHY = choices<Correction['because']>({
  cable: 'long cable',
  age: 'old tube',
  second_head: 'second head',
  other: 'something else',
})

type Props = {
  label: string
  corrections: Correction[]
  error: string | undefined
  onChange: (corrections: Correction[]) => void
}

/** What makes every pulse longer or shorter than its figures: each in percent, with its reason and where that comes from. */
export function CorrectionsEntry({ label, corrections, error, onChange }: Props) {
  const put = (index: number, change: Partial<Correction>) =>
    onChange(corrections.map((one, k) => (k === index ? { ...one, ...change } : one)))
  return (
    <Stack gap={4} role="group" aria-label={label}>
      <Text size="xs" fw={500}>
        {label}
      </Text>
      {corrections.map((one, index) => (
        <Group key={index} gap={4} wrap="nowrap">
          <Select
            size="xs"
            aria-label={`Reason ${index + 1}`}
            allowDeselect={false}
            comboboxProps={{ withinPortal: false }}
            data={WHY}
            value={one.because}
            onChange={(because) => because && put(index, { because: because as Correction['because'] })}
          />
          <Figure
            aria-label={`Longer by, ${index + 1}`}
            suffix=" %"
            value={one.percent}
            onChange={(percent) => put(index, { percent })}
          />
          <Select
            size="xs"
            aria-label={`Source ${index + 1}`}
            allowDeselect={false}
            comboboxProps={{ withinPortal: false }}
            data={['published', 'estimated', 'measured']}
            value={one.from.origin}
            onChange={(origin) =>
              origin && put(index, { from: { origin: origin as Correction['from']['origin'] } })
            }
          />
          <Button
            size="compact-xs"
            variant="default"
            aria-label={`Take reason ${index + 1} out`}
            onClick={() => onChange(corrections.filter((_, k) => k !== index))}
          >
            ×
          </Button>
        </Group>
      ))}
      {error && (
        <Text size="xs" c="var(--dp-trouble)">
          {error}
        </Text>
      )}
      <Button
        size="compact-xs"
        variant="default"
        onClick={() =>
          onChange([...corrections, { because: 'cable', percent: 0, from: { origin: 'estimated' } }])
        }
      >
        Another reason
      </Button>
    </Stack>
  )
}
