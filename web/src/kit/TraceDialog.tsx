import { Button, Group, Modal, Select, Stack, Text, TextInput } from '@mantine/core'
import { useState } from 'react'
import type { FlashUnit, Recording, Sheet, TraceAnswer } from '../api/client'
import { SeverityMark } from '../marks/SeverityMark'
import { nearest } from './lanes'
import { TraceFigure } from './TraceFigure'
import type { Beside } from './useKit'
import { figure, share, today } from './words'

/** A recording that was brought, and what is known of how it came about. */
export type Brought = {
  answer: TraceAnswer
  file: string
  power: number
  with: string
  /** Reads the same file again with something else known of it. */
  again: (more: Beside) => void
}

type Props = {
  unit: FlashUnit
  sheet: Sheet
  brought: Brought
  busy: boolean
  onFile: (recording: Recording) => void
  onClose: () => void
}

const QUALITY = {
  good: { severity: 'fine', words: 'Good' },
  fair: { severity: 'watch', words: 'Usable, with care' },
  unusable: { severity: 'trouble', words: 'Not to be filed' },
} as const

/** A recording read: the pulse with its durations, how good it is, and the power it is filed under. */
export function TraceDialog({ unit, sheet, brought, busy, onFile, onClose }: Props) {
  const { reading, recording } = brought.answer
  const [power, setPower] = useState(nearest(sheet.powers, brought.power).power)
  const [on, setOn] = useState(today())
  const [means, setMeans] = useState(brought.with)
  const expected = nearest(sheet.powers, power)
  const { severity, words } = QUALITY[reading.quality]
  return (
    <Modal opened onClose={onClose} size={780} title={`Recording: ${brought.file}`}>
      <Stack gap="xs" data-testid="trace" data-quality={reading.quality}>
        <Group gap="sm" align="center">
          <SeverityMark severity={severity} />
          <Text fw={700}>{words}</Text>
          <Text size="sm" c="dimmed" className="mono">
            {reading.samples.toLocaleString('en')} samples · noise {share(reading.noise_share)} of a peak of{' '}
            {figure(reading.peak)} {reading.notes.level_unit ?? ''}
          </Text>
          {reading.notes.channels.length > 1 && (
            <Select
              size="xs"
              aria-label="Channel"
              allowDeselect={false}
              comboboxProps={{ withinPortal: false }}
              data={reading.notes.channels.map((name, at) => ({ value: String(at + 1), label: name }))}
              value={String(reading.notes.channel)}
              onChange={(to) => to && brought.again({ channel: Number(to) })}
            />
          )}
        </Group>
        <TraceFigure reading={reading} expected={expected} />
        <Text size="xs" c="dimmed">
          Solid: as recorded, its nine tenths of light shaded. Dashed: what {unit.name} was thought to do at{' '}
          {expected.power_label}, t0.1 {expected.t01_label}.
        </Text>
        {reading.remarks.map(({ forbids, sentence }) => (
          <Group key={sentence} gap={6} wrap="nowrap">
            <SeverityMark severity={forbids ? 'trouble' : 'watch'} size={14} />
            <Text size="sm">{sentence}</Text>
          </Group>
        ))}
        {recording ? (
          <Group align="end" gap="xs" wrap="nowrap">
            <Select
              size="xs"
              w={110}
              label="Fired at"
              allowDeselect={false}
              data={sheet.powers.map((at) => ({ value: String(at.power), label: at.power_label }))}
              value={String(power)}
              onChange={(to) => to && setPower(Number(to))}
              comboboxProps={{ withinPortal: false }}
            />
            <TextInput
              size="xs"
              w={110}
              label="on"
              value={on}
              onChange={(event) => setOn(event.currentTarget.value)}
            />
            <TextInput
              size="xs"
              flex={1}
              label="with"
              value={means}
              onChange={(event) => setMeans(event.currentTarget.value)}
            />
            <Button
              size="xs"
              loading={busy}
              data-autofocus
              onClick={() =>
                onFile({ ...recording, power, ...(on && { on }), ...(means && { with: means }) })
              }
            >
              File under {unit.name} at {expected.power_label}
            </Button>
          </Group>
        ) : (
          <Text size="sm">
            Nothing was changed. Record it again: nearer, with the input range set to the peak, and long
            enough for the whole pulse.
          </Text>
        )}
      </Stack>
    </Modal>
  )
}
