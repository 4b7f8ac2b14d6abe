import { Button, Select, Stack } from '@mantine/core'
import { Opened } from './Bay'
import { USAGES } from '../marks/usages'
import { choices } from '../words/choices'
import { useQuery } from '@tanstack/react-query'
import { answered, client, type Moved, type Problem, type Shot } from '../api/client'
import { Figure } from '../controls/Figure'
import { MaybeFigure } from '../controls/MaybeFigure'

type Props = {
  shot: Shot
  refusal: Problem | undefined
  onChange: (shot: Shot) => void
  /** What had to move because other gear was chosen. */
  onMoved: (moved: Moved[]) => void
}

/** Everything that is taken along. */
export const useKit = () =>
  useQuery({ queryKey: ['kit', 'offered'], queryFn: () => answered(client.GET('/api/kit')) }).data

/** Puts a shot on other gear; the program says what its settings have to give way to. */
export function useOtherGear({ onChange, onMoved }: Pick<Props, 'onChange' | 'onMoved'>) {
  return (shot: Shot) => {
    answered(client.POST('/api/fit', { body: shot })).then(
      (fitted) => {
        onChange(fitted.shot)
        onMoved(fitted.moved)
      },
      // Nothing could be fitted: the Bench says why, as of any other change.
      () => onChange(shot),
    )
  }
}

type Item = { id: string; name: string }

/** One of a list of things, by name. What is set may be from a file and not in the list; it stays choosable. */
export function Choice<T extends Item>(props: {
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

const SCENES = choices<Shot['scene']>({
  double_ropes: 'skipping ropes in a hall',
  lantern_slalom: 'a skater at dusk',
  slipway_spin: 'a bicycle in the sun',
  sabre_reach: "a fencer's lunge",
  silks: 'an aerialist in silks',
  finishers_wall: 'portraits before a wall',
  roller_hall: 'a turn in a lit hall',
  plain_stage: 'a plain stage, for measuring',
})

export function CameraChoice(props: Props) {
  const { shot, refusal, onChange } = props
  const kit = useKit()
  const other = useOtherGear(props)
  const put = (change: Partial<Shot['camera']>) => other({ ...shot, camera: { ...shot.camera, ...change } })
  return (
    <Opened width={320} side="right">
      <Opened.Target>
        <Button
          size="compact-xs"
          radius="xl"
          variant="default"
          data-choose="camera"
          title={`${shot.camera.body.name} · ${shot.camera.lens.name}`}
          miw={0}
          styles={{ label: { display: 'block', height: 'auto', textOverflow: 'ellipsis' } }}
        >
          {shot.camera.body.name} · {shot.camera.lens.name}
        </Button>
      </Opened.Target>
      <Opened.Dropdown>
        <Stack gap="xs">
          <Choice
            label="Camera"
            items={kit?.cameras}
            value={shot.camera.body}
            onChange={(body) => put({ body })}
          />
          <Choice
            label="Lens"
            items={kit?.lenses}
            value={shot.camera.lens}
            onChange={(lens) => put({ lens })}
          />
          <Select
            size="xs"
            label="The picture is for"
            allowDeselect={false}
            comboboxProps={{ withinPortal: false }}
            data={USAGES}
            value={shot.usage}
            onChange={(usage) => usage && onChange({ ...shot, usage: usage as Shot['usage'] })}
          />
          <Select
            size="xs"
            label="Freezing time counts as"
            allowDeselect={false}
            comboboxProps={{ withinPortal: false }}
            data={choices<NonNullable<Shot['school']>>({
              t01: 't0.1, as pictures behave',
              t05: 't0.5, as leaflets print',
              t90: 't90, nine tenths of the light',
            })}
            value={shot.school}
            onChange={(school) => school && onChange({ ...shot, school: school as Shot['school'] })}
          />
          <Select
            size="xs"
            label="Drawn as"
            allowDeselect={false}
            comboboxProps={{ withinPortal: false }}
            placeholder="an own composition"
            data={SCENES}
            value={shot.stage ? null : shot.scene}
            onChange={(scene) => scene && onChange({ ...shot, stage: null, scene: scene as Shot['scene'] })}
          />
          <Figure
            label="Depth wanted"
            suffix=" m"
            step={0.1}
            value={shot.subject.depth_m}
            error={refusal?.field === 'subject.depth_m' ? refusal.detail : undefined}
            onChange={(depth_m) => onChange({ ...shot, subject: { ...shot.subject, depth_m } })}
          />
          <MaybeFigure
            label="And at most"
            suffix=" m"
            step={0.1}
            placeholder="as much as it likes"
            value={shot.subject.depth_at_most_m}
            error={refusal?.field === 'subject.depth_at_most_m' ? refusal.detail : undefined}
            onChange={(depth_at_most_m) =>
              onChange({ ...shot, subject: { ...shot.subject, depth_at_most_m } })
            }
          />
        </Stack>
      </Opened.Dropdown>
    </Opened>
  )
}
