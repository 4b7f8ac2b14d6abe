import { Checkbox } from '@mantine/core'

type Props = { parts: { name: string }[]; misses: string[] | undefined; onChange: (misses: string[]) => void }

/** Which parts a light or a lamp reaches. */
export function Reaches({ parts, misses = [], onChange }: Props) {
  return parts.map(({ name }) => (
    <Checkbox
      key={name}
      size="xs"
      label={name}
      checked={!misses.includes(name)}
      onChange={(event) =>
        onChange(event.currentTarget.checked ? misses.filter((one) => one !== name) : [...misses, name])
      }
    />
  ))
}
