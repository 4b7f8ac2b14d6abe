import { Button, Checkbox, Group, Select, Stack, Text, TextInput } from '@mantine/core'
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { answered, client, Refusal, type MeterReading, type Shot } from '../api/client'
import { choices } from '../words/choices'
import { signedStops } from '../words/figures'

type Because = NonNullable<MeterReading['because']>

const WHY = choices<Because>({
  power: 'it was at another power',
  distance: 'it stood elsewhere',
  zoom: 'its head was zoomed or turned',
  modifier: 'something else was in front of it',
  second_light: 'a second light was on',
  itself: 'none of these: it is so',
})

const taken = (shot: Shot, reading: MeterReading) =>
  answered(client.POST('/api/meter', { body: { shot, reading } }))

/** The day, as the photographer's own clock has it. */
const today = () => new Date().toLocaleDateString('sv')

type Props = {
  shot: Shot
  /** One light alone; all of them together where none is named. */
  light?: number
  /** What a meter would show by what is computed. */
  shows: string | null | undefined
  onChange: (shot: Shot) => void
}

/** The meter, both ways: what it would show here, and what it did show. */
export function Meter({ shot, light, shows, onChange }: Props) {
  const queries = useQueryClient()
  const [read, setRead] = useState('')
  const [time, setTime] = useState('')
  const [because, setBecause] = useState<Because>()
  const [asking, setAsking] = useState(false)
  const [keeps, setKeeps] = useState(false)
  const [told, setTold] = useState<{ words: string; wrong?: boolean }>()
  const of = light === undefined ? undefined : shot.lights[light]!
  const own = of?.metered
  const counts = own && own.unit === of.unit.id && own.modifier === of.modifier.id

  const take = async () => {
    try {
      const answer = await taken(shot, {
        at: light === undefined ? 'all' : 'light',
        read,
        on: today(),
        ...(light !== undefined && { light }),
        ...(time && { time }),
        ...(because && { because }),
      })
      onChange(answer.shot)
      setTold({ words: answer.said })
      setAsking(false)
      setBecause(undefined)
      setRead('')
      if (!keeps) return
      for (const { unit, reading } of answer.of_units)
        await answered(
          client.POST('/api/kit/items/{id}/readings', { params: { path: { id: unit } }, body: reading }),
        )
      void queries.invalidateQueries({ queryKey: ['kit'] })
    } catch (failure) {
      setTold({ words: (failure as Error).message, wrong: true })
      setAsking(failure instanceof Refusal && failure.problem.type.endsWith('far-reading'))
    }
  }
  return (
    <Stack gap="xs" data-testid="meter">
      <Text size="sm">
        {shows ? (
          <>
            A meter here{light === undefined ? ', its dome to the camera,' : ', turned to this light alone,'}{' '}
            reads <b className="mono">{shows}</b>.
          </>
        ) : (
          'No flash to read here.'
        )}
      </Text>
      <Group gap="xs" align="end" wrap="nowrap">
        <TextInput
          size="xs"
          label="It read"
          placeholder="f/6.3, or 5.6 and 3"
          autoComplete="off"
          value={read}
          data-unclear={told?.wrong || undefined}
          onChange={(event) => setRead(event.currentTarget.value)}
          onKeyDown={(event) => event.key === 'Enter' && void take()}
        />
        <TextInput
          size="xs"
          w={96}
          label="At the time"
          placeholder="flash alone"
          title="The meter's own time, where it lets the steady light in as well"
          autoComplete="off"
          value={time}
          onChange={(event) => setTime(event.currentTarget.value)}
          onKeyDown={(event) => event.key === 'Enter' && void take()}
        />
        {asking && (
          <Select
            size="xs"
            label="Because"
            placeholder="why so far off?"
            comboboxProps={{ withinPortal: false }}
            data={WHY}
            value={because ?? null}
            onChange={(to) => setBecause((to as Because | null) ?? undefined)}
          />
        )}
        <Button size="xs" variant="default" data-choose="take-reading" onClick={() => void take()}>
          Take it
        </Button>
      </Group>
      {of && (
        <Checkbox
          size="xs"
          label={`Keep it with ${of.unit.name} through ${of.modifier.name}, for every shot`}
          checked={keeps}
          onChange={(event) => setKeeps(event.currentTarget.checked)}
        />
      )}
      {told && (
        <Text size="xs" role="status" c={told.wrong ? 'var(--dp-trouble)' : 'dimmed'}>
          {told.words}
        </Text>
      )}
      {counts && (
        <Group gap="xs" wrap="nowrap">
          <Text size="xs" c="dimmed">
            {signedStops(own.stops)} stops counted in{own.on && `, read on ${own.on}`}: {own.read}
            {own.because && ` (${own.because})`}.
          </Text>
          <Button
            size="compact-xs"
            variant="default"
            onClick={() =>
              onChange({
                ...shot,
                lights: shot.lights.map(({ metered, ...rest }, at) =>
                  at === light ? rest : { ...rest, ...(metered && { metered }) },
                ),
              })
            }
          >
            Forget it
          </Button>
        </Group>
      )}
    </Stack>
  )
}
