import { Button, Popover, Select, SimpleGrid, Stack, Switch, Text } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { answered, client, type Kit, type Problem, type Shot } from '../api/client'
import { Figure } from '../controls/Figure'

type Props = { shot: Shot; refusal: Problem | undefined; onChange: (shot: Shot) => void }

/** The demo kit never changes while a page is open. */
const useKit = () =>
  useQuery({
    queryKey: ['kit'],
    queryFn: () => answered(client.GET('/api/kit')),
    staleTime: Number.POSITIVE_INFINITY,
  })

type Item = { id: string; name: string }

/** One of a list of things, by name. What is set may be from a file and not in the list; it stays choosable. */
function Choice<T extends Item>(props: {
  label: string
  items: T[] | undefined
  value: T
  onChange: (item: T) => void
}) {
  const { label, items = [], value, onChange } = props
  const all = items.some((item) => item.id === value.id) ? items : [value, ...items]
  return (
    <Select
      size="xs"
      label={label}
      allowDeselect={false}
      comboboxProps={{ withinPortal: false }}
      data={all.map((item) => ({ value: item.id, label: item.name }))}
      value={value.id}
      onChange={(id) => {
        const item = all.find((one) => one.id === id)
        if (item) onChange(item)
      }}
    />
  )
}

const nearest = (value: number, low: number, high: number) => Math.max(low, Math.min(high, value))

export function CameraChoice({ shot, onChange }: Props) {
  const kit = useKit().data
  const put = (change: Partial<Shot['camera']>) =>
    onChange({ ...shot, camera: { ...shot.camera, ...change } })
  return (
    <Popover width={320} trapFocus position="top-start">
      <Popover.Target>
        <Button size="compact-xs" radius="xl" variant="default" data-choose="camera">
          {shot.camera.body.name} · {shot.camera.lens.name}
        </Button>
      </Popover.Target>
      <Popover.Dropdown>
        <Stack gap="xs">
          <Choice
            label="Camera"
            items={kit?.cameras}
            value={shot.camera.body}
            onChange={(body) => onChange(fitted(shot, body))}
          />
          <Choice<Kit['lenses'][number]>
            label="Lens"
            items={kit?.lenses}
            value={shot.camera.lens}
            onChange={(lens) =>
              put({
                lens,
                focal_mm: nearest(shot.camera.focal_mm, lens.focal_min_mm, lens.focal_max_mm),
                aperture_f: nearest(shot.camera.aperture_f, lens.widest_f, lens.narrowest_f),
              })
            }
          />
          <Select
            size="xs"
            label="The picture is for"
            allowDeselect={false}
            comboboxProps={{ withinPortal: false }}
            data={[
              { value: 'pixel', label: 'single pixels' },
              { value: 'large_print', label: 'a large print' },
              { value: 'print', label: 'a print' },
              { value: 'screen', label: 'a screen' },
            ]}
            value={shot.usage}
            onChange={(usage) => usage && onChange({ ...shot, usage: usage as Shot['usage'] })}
          />
          <Select
            size="xs"
            label="Freezing time counts as"
            allowDeselect={false}
            comboboxProps={{ withinPortal: false }}
            data={[
              { value: 't01', label: 't0.1, as pictures behave' },
              { value: 't05', label: 't0.5, as leaflets print' },
              { value: 't90', label: 't90, nine tenths of the light' },
            ]}
            value={shot.school}
            onChange={(school) => school && onChange({ ...shot, school: school as Shot['school'] })}
          />
        </Stack>
      </Popover.Dropdown>
    </Popover>
  )
}

/** A shot on another body: settings that the body does not have go to its nearest end. */
function fitted(shot: Shot, body: Shot['camera']['body']): Shot {
  const iso = nearest(shot.camera.iso, body.iso_min, body.iso_max)
  const glows = body.high_speed_sync && shot.flash.unit.high_speed_sync
  const sync = shot.flash.sync === 'high_speed' && !glows ? 'front' : shot.flash.sync
  return { ...shot, camera: { ...shot.camera, body, iso }, flash: { ...shot.flash, sync } }
}

export function FlashChoice({ shot, refusal, onChange }: Props) {
  const kit = useKit().data
  const put = (change: Partial<Shot['flash']>) => onChange({ ...shot, flash: { ...shot.flash, ...change } })
  const { flash } = shot
  return (
    <Popover width={340} trapFocus position="top-start">
      <Popover.Target>
        <Button size="compact-xs" radius="xl" variant="default" data-choose="flash">
          {flash.on ? `${flash.unit.name} · ${flash.modifier.name}` : 'off'}
        </Button>
      </Popover.Target>
      <Popover.Dropdown>
        <Stack gap="xs">
          <Switch
            label="Fires"
            checked={flash.on}
            onChange={(event) => put({ on: event.currentTarget.checked })}
          />
          <Choice
            label="Unit"
            items={kit?.units}
            value={flash.unit}
            onChange={(unit) =>
              put({
                unit,
                power: nearest(flash.power, 2 ** -unit.lowest_stops, 1),
                sync: flash.sync === 'high_speed' && !unit.high_speed_sync ? 'front' : flash.sync,
              })
            }
          />
          <Choice
            label="Through"
            items={kit?.modifiers}
            value={flash.modifier}
            onChange={(modifier) => put({ modifier })}
          />
          <Choice
            label="Trigger"
            items={kit?.triggers}
            value={flash.trigger}
            onChange={(trigger) => put({ trigger })}
          />
          <SimpleGrid cols={2} spacing="xs">
            <Figure
              label="Key target"
              suffix=" stops"
              step={0.1}
              value={shot.targets.key_stops}
              error={refusal?.field === 'targets.key_stops' ? refusal.detail : undefined}
              onChange={(key_stops) => onChange({ ...shot, targets: { ...shot.targets, key_stops } })}
            />
            <Figure
              label="Depth wanted"
              suffix=" m"
              step={0.1}
              value={shot.subject.depth_m}
              error={refusal?.field === 'subject.depth_m' ? refusal.detail : undefined}
              onChange={(depth_m) => onChange({ ...shot, subject: { ...shot.subject, depth_m } })}
            />
          </SimpleGrid>
          <Text size="xs" c="dimmed">
            Set lights up and plug them in by the maker's manual; weigh stands down where people run.
          </Text>
        </Stack>
      </Popover.Dropdown>
    </Popover>
  )
}
