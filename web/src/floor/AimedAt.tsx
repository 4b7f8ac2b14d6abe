import { memo } from 'react'
import { Select } from '@mantine/core'
import type { FloorAnswer } from '../api/client'
import type { Carried } from './useFloor'

type Light = FloorAnswer['lights'][number]
type Props = {
  of: Light
  people: FloorAnswer['people']
  chest: FloorAnswer['chest_m']
  onAim: (aim_m: NonNullable<Carried['aim_m']>) => void
}

/** Whose light it is: the mark's, or that of somebody who stands elsewhere. */
export const AimedAt = memo(function AimedAt({ of, people, chest, onAim }: Props) {
  const others = people.slice(1).map(({ name }, index) => ({ value: `${index + 1}`, label: name }))
  const at = !of.turned_says ? 'mark' : of.aimed_at ? `${of.aimed_at}` : 'place'
  return (
    <Select
      size="xs"
      mb={8}
      label="Aimed at"
      description={of.turned_says ? `Turned ${of.turned_says}` : undefined}
      inputWrapperOrder={['label', 'input', 'description']}
      allowDeselect={false}
      data={[
        { value: 'mark', label: 'The mark' },
        ...others,
        ...(at === 'place' ? [{ value: 'place', label: 'A place of its own' }] : []),
      ]}
      value={at}
      onChange={(to) => {
        if (to === 'place' || to === null) return
        onAim(to === 'mark' ? chest : people[Number(to)]!.chest_m)
      }}
    />
  )
})
