import { Button, Group, Select, SimpleGrid, Stack, Text } from '@mantine/core'
import { useState } from 'react'
import { answered, client, Refusal, type Flash, type LightForecast, type Shot } from '../../api/client'
import { applied } from '../../api/applied'
import { MaybeFigure } from '../../controls/MaybeFigure'
import { ROLE_WORDS } from '../../marks/RoleMark'
import { placed } from '../../words/figures'
import { withLight } from './lights'

type Props = {
  shot: Shot
  index: number
  seen: LightForecast | undefined
  error: (field: string) => string | undefined
  onChange: (shot: Shot) => void
}

/** Where one light shall fall: by itself, against the light that leads, or as bright as another. */
export function Wanted({ shot, index, seen, error, onChange }: Props) {
  const light = shot.lights[index]!
  const put = (change: Partial<Flash>) => onChange(withLight(shot, index, change))
  const leader = shot.targets.lead === 'daylight' ? 'daylight' : 'the key'
  return (
    <Stack gap="xs">
      <SimpleGrid cols={2} spacing="xs">
        <MaybeFigure
          label="By itself at"
          suffix=" stops"
          step={0.1}
          placeholder="as the whole asks"
          value={light.target_stops}
          error={error('target_stops')}
          onChange={(target_stops) => put({ target_stops, ratio_stops: undefined })}
        />
        <MaybeFigure
          label={`Against ${leader}`}
          suffix=" stops"
          step={0.1}
          placeholder="no ratio wanted"
          value={light.ratio_stops}
          error={error('ratio_stops')}
          onChange={(ratio_stops) => put({ ratio_stops, target_stops: undefined })}
        />
      </SimpleGrid>
      {seen && (
        <Text size="sm" className="mono">
          in the frame {placed(seen.flash.in_frame_stops)} · on the set {placed(seen.flash.on_set_stops)}
          {seen.flash.meter && ` · a meter reads ${seen.flash.meter}`}
        </Text>
      )}
      {shot.lights.length > 1 && <AsBrightAs shot={shot} index={index} onChange={onChange} />}
    </Stack>
  )
}

/** One press, and this light is as bright as another: its power is turned, and where that ends it walks. */
function AsBrightAs({ shot, index, onChange }: Pick<Props, 'shot' | 'index' | 'onChange'>) {
  const [told, setTold] = useState<string>()
  const others = shot.lights.flatMap((light, at) =>
    at === index
      ? []
      : [{ value: String(at), label: `${at + 1}: ${light.group} ${ROLE_WORDS[light.role ?? 'key']}` }],
  )
  const [against, setAgainst] = useState(others[0]!.value)
  const press = async () => {
    try {
      const wish = { light: index, against: Number(against), stops: 0 }
      const found = await answered(client.POST('/api/balance', { body: { shot, wish } }))
      onChange(applied(shot, found.changes))
      setTold(found.said || 'It is as bright already.')
    } catch (error) {
      setTold(
        error instanceof Refusal ? error.problem.detail : 'Dash Pebble does not answer; nothing was changed.',
      )
    }
  }
  return (
    <Group gap="xs" align="end" wrap="nowrap">
      <Select
        size="xs"
        label="As bright as"
        allowDeselect={false}
        comboboxProps={{ withinPortal: false }}
        data={others}
        value={against}
        onChange={(to) => to && setAgainst(to)}
      />
      <Button size="xs" variant="default" data-choose="balance" onClick={() => void press()}>
        Turn it
      </Button>
      <Text size="xs" c="dimmed" role="status">
        {told}
      </Text>
    </Group>
  )
}
