import { ColorSwatch, Select, SimpleGrid, Stack } from '@mantine/core'
import type { Filter } from '../api/client'
import { choices } from '../words/choices'
import { Figure } from '../controls/Figure'

type Hue = NonNullable<Filter['hue']>

/** Where to begin, by name; degrees round the wheel. */
const NAMED = { red: 0, amber: 30, yellow: 60, green: 120, teal: 180, blue: 240, violet: 270, magenta: 310 }
const NAMES = choices<keyof typeof NAMED>({
  red: 'red',
  amber: 'amber',
  yellow: 'yellow',
  green: 'green',
  teal: 'teal',
  blue: 'blue',
  violet: 'violet',
  magenta: 'magenta',
})
/** As a deep gel of the shop. */
const DEEP = 0.9

type Props = {
  label: string
  hue: Hue | undefined
  error: string | undefined
  onChange: (hue: Hue | undefined) => void
}

/** A colour by its hue: begun by its name, set to a degree, with how pure it is. */
export function HueEntry({ label, hue, error, onChange }: Props) {
  const named = Object.entries(NAMED).find(([, degrees]) => degrees === hue?.hue_deg)?.[0]
  return (
    <Stack gap={4}>
      <Select
        size="xs"
        label={label}
        placeholder={hue ? 'between names' : 'none, it warms or cools'}
        clearable={hue !== undefined}
        error={error}
        comboboxProps={{ withinPortal: false }}
        data={NAMES}
        value={named ?? null}
        leftSection={hue && <ColorSwatch size={14} color={swatch(hue)} />}
        onChange={(name) =>
          onChange(
            name === null
              ? undefined
              : { hue_deg: NAMED[name as keyof typeof NAMED], saturation: hue?.saturation ?? DEEP },
          )
        }
      />
      {hue && (
        <SimpleGrid cols={2} spacing="xs">
          <Figure
            label="Hue"
            suffix="°"
            step={5}
            value={hue.hue_deg}
            onChange={(hue_deg) => onChange({ ...hue, hue_deg })}
          />
          <Figure
            label="Purity"
            kind="share"
            step={0.05}
            value={hue.saturation}
            onChange={(saturation) => onChange({ ...hue, saturation })}
          />
        </SimpleGrid>
      )}
    </Stack>
  )
}

/** A sample of it for the eye. */
const swatch = ({ hue_deg, saturation }: Hue) =>
  `hsl(${hue_deg} ${saturation * 100}% ${100 - 50 * saturation}%)`
