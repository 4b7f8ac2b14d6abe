import { Button, Select, SimpleGrid, Stack, Switch, Text, TextInput } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { answered, client, type Filter, type FlashUnit, type Source } from '../api/client'
import { Figure } from '../controls/Figure'
import { MaybeFigure } from '../controls/MaybeFigure'
import { TimeFigure } from '../controls/TimeFigure'
import { valueAt } from '../api/pointer'
import { CorrectionsEntry, type Correction } from './CorrectionsEntry'
import type { Field } from './field'
import { HueEntry } from './HueEntry'
import classes from './FieldEntry.module.css'

type Props = {
  field: Field
  /** The thing it belongs to. */
  of: unknown
  error?: string | undefined
  onChange: (value: unknown) => void
}

/** One figure, entered in its own way. */
export function FieldEntry({ field, of, error, onChange }: Props) {
  const value = valueAt(of, field.pointer)
  const common = {
    size: 'xs',
    label: field.label,
    title: field.symbol,
    error,
    description: field.hint,
  } as const
  switch (field.as) {
    case 'text':
      return (
        <TextInput
          {...common}
          value={(value as string | undefined) ?? ''}
          placeholder="asked first"
          data-autofocus={field.pointer === '/name' || undefined}
          onChange={(event) => onChange(event.currentTarget.value)}
        />
      )
    case 'time':
    case 'maybe-time':
      return (
        <TimeFigure
          {...common}
          placeholder={field.as === 'maybe-time' ? 'none' : 'asked first'}
          value={(value as string | undefined) || undefined}
          onChange={(time) => onChange(time ?? (field.as === 'time' ? '' : undefined))}
        />
      )
    case 'number':
      return (
        <Figure
          {...common}
          {...(field.kind && { kind: field.kind })}
          suffix={field.suffix}
          placeholder="asked first"
          value={value as number}
          onChange={onChange}
        />
      )
    case 'maybe':
      return (
        <MaybeFigure
          {...common}
          {...(field.kind && { kind: field.kind })}
          suffix={field.suffix}
          value={value as number | undefined}
          onChange={onChange}
        />
      )
    case 'yes':
      return (
        <Switch
          size="xs"
          label={field.label}
          className={classes.yes}
          checked={value === true}
          onChange={(event) => onChange(event.currentTarget.checked)}
        />
      )
    case 'word': {
      // What carries its word inside is told by it.
      const inside = value as { as?: string; way?: string; then?: string } | string | undefined
      const word = typeof inside === 'object' ? (inside.as ?? inside.way ?? inside.then) : inside
      return (
        <Select
          {...common}
          data={field.words}
          value={word ?? null}
          placeholder={field.optional ? 'not known' : 'asked first'}
          allowDeselect={field.optional ?? false}
          clearable={field.optional ?? false}
          comboboxProps={{ withinPortal: false }}
          onChange={(to) => {
            if (to === word) return
            onChange(to === null ? undefined : field.fresh ? field.fresh(to) : to)
          }}
        />
      )
    }
    case 'source':
      return <SourceEntry label={field.label} source={value as Source} error={error} onChange={onChange} />
    case 'battery':
      return <BatteryEntry label={field.label} battery={value as Battery | undefined} onChange={onChange} />
    case 'leaflet': {
      const leaflet = value as FlashUnit['leaflet_output']
      return (
        <MaybeFigure
          {...common}
          suffix={field.suffix}
          value={leaflet?.as === 'guide_number' ? leaflet.metres : undefined}
          onChange={(metres) => onChange(metres === undefined ? undefined : { as: 'guide_number', metres })}
        />
      )
    }
    case 'corrections':
      return (
        <CorrectionsEntry
          label={field.label}
          corrections={(value as Correction[] | undefined) ?? []}
          error={error}
          onChange={(list) => onChange(list.length > 0 ? list : undefined)}
        />
      )
    case 'hue':
      return (
        <HueEntry
          label={field.label}
          hue={(value as Filter['hue']) ?? undefined}
          error={error}
          onChange={onChange}
        />
      )
    case 'rows':
      return <RowsEntry rows={value as Row[]} error={error} onChange={onChange} />
  }
}

type Battery = NonNullable<FlashUnit['battery']>
type BatteryProps = {
  label: string
  battery: Battery | undefined
  onChange: (battery: Battery | undefined) => void
}

/** One of the batteries of the kit; none is the mains, or not said. */
function BatteryEntry({ label, battery, onChange }: BatteryProps) {
  const kit = useQuery({ queryKey: ['kit', 'offered'], queryFn: () => answered(client.GET('/api/kit')) }).data
  const offered = kit?.batteries ?? []
  const all = battery && !offered.some((one) => one.id === battery.id) ? [battery, ...offered] : offered
  return (
    <Select
      size="xs"
      label={label}
      placeholder="mains, or not said"
      clearable
      comboboxProps={{ withinPortal: false }}
      data={all.map((one) => ({ value: one.id, label: one.name }))}
      value={battery?.id ?? null}
      onChange={(id) => onChange(all.find((one) => one.id === id))}
    />
  )
}

type SourceProps = {
  label: string
  source: Source | undefined
  error: string | undefined
  onChange: (source: Source) => void
}

function SourceEntry({ label, source = { origin: 'published' }, error, onChange }: SourceProps) {
  return (
    <SimpleGrid cols={source.origin === 'measured' ? 3 : 1} spacing="xs">
      <Select
        size="xs"
        label={label}
        error={error}
        allowDeselect={false}
        comboboxProps={{ withinPortal: false }}
        data={['published', 'estimated', 'measured']}
        value={source.origin}
        onChange={(origin) => origin && onChange({ origin: origin as Source['origin'] })}
      />
      {source.origin === 'measured' && (
        <>
          <TextInput
            size="xs"
            label="on"
            placeholder="2026-11-25"
            value={source.on ?? ''}
            onChange={(event) => onChange({ ...source, on: event.currentTarget.value || undefined })}
          />
          <TextInput
            size="xs"
            label="with"
            placeholder="incident meter"
            value={source.with ?? ''}
            onChange={(event) => onChange({ ...source, with: event.currentTarget.value || undefined })}
          />
        </>
      )}
    </SimpleGrid>
  )
}

type Row = { power: number; t05_ms?: number | null; t01_ms?: number | null }
type RowsProps = { rows: Row[]; error: string | undefined; onChange: (rows: Row[]) => void }

/** A table of durations: one row a power, one of the two times is enough. */
function RowsEntry({ rows, error, onChange }: RowsProps) {
  const put = (index: number, change: Partial<Row>) =>
    onChange(rows.map((row, k) => (k === index ? { ...row, ...change } : row)))
  return (
    <Stack gap={4}>
      <div className={classes.row}>
        <Text size="xs">Power, of full</Text>
        <Text size="xs">t0.5, ms</Text>
        <Text size="xs">t0.1, ms</Text>
      </div>
      {rows.map((row, index) => (
        <div key={index} className={classes.row}>
          <Figure
            aria-label={`Power of row ${index + 1}`}
            kind="power"
            value={row.power}
            onChange={(power) => put(index, { power })}
          />
          <MaybeFigure
            aria-label={`t0.5 of row ${index + 1}`}
            placeholder="–"
            suffix=" ms"
            value={row.t05_ms}
            onChange={(t05_ms) => put(index, { t05_ms })}
          />
          <MaybeFigure
            aria-label={`t0.1 of row ${index + 1}`}
            placeholder="–"
            suffix=" ms"
            value={row.t01_ms}
            onChange={(t01_ms) => put(index, { t01_ms })}
          />
          <Button
            size="compact-xs"
            variant="default"
            aria-label={`Take row ${index + 1} out`}
            disabled={rows.length === 1}
            onClick={() => onChange(rows.filter((_, k) => k !== index))}
          >
            ×
          </Button>
        </div>
      ))}
      {error && (
        <Text size="xs" c="var(--dp-trouble)">
          {error}
        </Text>
      )}
      <Button
        size="compact-xs"
        variant="default"
        onClick={() => {
          const last = rows[rows.length - 1] ?? { power: 2 }
          onChange([...rows, { ...last, power: last.power / 2 }])
        }}
      >
        Another power
      </Button>
    </Stack>
  )
}
