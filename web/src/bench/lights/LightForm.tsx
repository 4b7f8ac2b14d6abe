import {
  Button,
  Checkbox,
  Group,
  Select,
  SegmentedControl,
  SimpleGrid,
  Stack,
  Switch,
  Tabs,
  Text,
} from '@mantine/core'
import { choices } from '../../words/choices'
import type { Flash, LightForecast, Moved, Problem, Shot } from '../../api/client'
import { Figure } from '../../controls/Figure'
import { MaybeFigure } from '../../controls/MaybeFigure'
import { ROLE_WORDS } from '../../marks/RoleMark'
import { Choice, useKit, useOtherGear } from '../KitChoice'
import { Meter } from '../Meter'
import { Reaches } from '../Reaches'
import { signedStops } from '../../words/figures'
import { withLight } from './lights'
import { Stand } from './Stand'
import { Wanted } from './Wanted'

const NONE = { id: 'none', name: 'none' }
const WALL = { surface_m: 2, tilt_deg: 75, reflectance: 0.8 }

type Props = {
  shot: Shot
  index: number
  seen: LightForecast | undefined
  problem: Problem | undefined
  refusal: Problem | undefined
  onChange: (shot: Shot) => void
  onMoved: (moved: Moved[]) => void
  onRemove: (() => void) | undefined
}

/** One flash: what it is, where it stands, how it is fired. */
export function LightForm({ shot, index, seen, problem, refusal, onChange, onMoved, onRemove }: Props) {
  const kit = useKit()
  const other = useOtherGear({ onChange, onMoved })
  const light = shot.lights[index]!
  const put = (change: Partial<Flash>) => onChange(withLight(shot, index, change))
  const error = (field: string) => (problem?.field?.endsWith(`].${field}`) ? problem.detail : undefined)
  const gels = kit?.filters?.filter((filter) => filter.used_as === 'gel') ?? []
  const modelling = kit?.lamps?.filter((lamp) => lamp.modelling) ?? []
  return (
    <Tabs defaultValue="unit" keepMounted={false}>
      <Tabs.List mb="xs">
        <Tabs.Tab value="unit">Unit</Tabs.Tab>
        <Tabs.Tab value="place">Place</Tabs.Tab>
        <Tabs.Tab value="firing">Firing</Tabs.Tab>
        <Tabs.Tab value="wanted">Wanted</Tabs.Tab>
        <Tabs.Tab value="meter">Meter</Tabs.Tab>
      </Tabs.List>
      <Tabs.Panel value="meter">
        <Meter shot={shot} light={index} shows={seen?.flash.meter} onChange={onChange} />
      </Tabs.Panel>
      <Tabs.Panel value="unit">
        <Stack gap="xs">
          <SimpleGrid cols={2} spacing="xs">
            <Choice
              label="Unit"
              items={kit?.units}
              value={light.unit}
              onChange={(unit) => other(withLight(shot, index, { unit }))}
            />
            <Choice
              label="Through"
              items={kit?.modifiers}
              value={light.modifier}
              onChange={(modifier) => put({ modifier })}
            />
            <Choice
              label="Gel"
              items={[NONE, ...gels]}
              value={light.gel ?? NONE}
              onChange={({ id }) => put({ gel: gels.find((gel) => gel.id === id) })}
            />
            <Choice
              label="Trigger"
              items={kit?.triggers}
              value={light.trigger}
              onChange={(trigger) => put({ trigger })}
            />
            <Choice
              label="Modelling lamp"
              items={[NONE, ...modelling]}
              value={light.modelling?.lamp ?? NONE}
              onChange={({ id }) => {
                const lamp = modelling.find((one) => one.id === id)
                put({ modelling: lamp && { lamp, mode: light.modelling?.mode ?? 'full' } })
              }}
            />
            <Figure
              label="Heads side by side"
              min={1}
              value={light.heads ?? 1}
              error={error('heads')}
              onChange={(heads) => put({ heads: Math.trunc(heads) })}
            />
            {light.modelling && (
              <Select
                size="xs"
                label="It burns"
                allowDeselect={false}
                comboboxProps={{ withinPortal: false }}
                data={choices({
                  full: 'fully',
                  proportional: 'with the power',
                })}
                value={light.modelling.mode}
                onChange={(mode) =>
                  mode &&
                  light.modelling &&
                  put({ modelling: { ...light.modelling, mode: mode as 'full' | 'proportional' } })
                }
              />
            )}
          </SimpleGrid>
          {seen && (
            <Text size="xs" c="dimmed" className="mono">
              {seen.hue ?? `${Math.round(seen.kelvin)} K`} · t0.1 {seen.pulse.t01_label}
              {seen.flash.feathered_stops != null &&
                ` · feathered ${signedStops(seen.flash.feathered_stops)}`}
              {seen.flash.bounce_stops != null && ` · bounced ${signedStops(seen.flash.bounce_stops)}`}
              {seen.flash.high_speed_stops != null && ` · HSS ${signedStops(seen.flash.high_speed_stops)}`}
            </Text>
          )}
          <Group justify="space-between" wrap="nowrap">
            <Text size="xs" c="dimmed">
              Set up and plug in by the maker&apos;s manual; weigh stands down where people run.
            </Text>
            {onRemove && (
              <Button size="compact-xs" variant="default" onClick={onRemove} style={{ flex: 'none' }}>
                Take it away
              </Button>
            )}
          </Group>
        </Stack>
      </Tabs.Panel>
      <Tabs.Panel value="place">
        <Group wrap="nowrap" align="start" gap="sm">
          {!light.on_camera && (
            <Stand bearing={light.bearing_deg ?? -32} onChange={(bearing_deg) => put({ bearing_deg })} />
          )}
          <SimpleGrid cols={2} spacing="xs" verticalSpacing={6}>
            <Select
              size="xs"
              label="It is there as"
              allowDeselect={false}
              comboboxProps={{ withinPortal: false }}
              data={Object.entries(ROLE_WORDS).map(([value, label]) => ({ value, label }))}
              value={light.role ?? 'key'}
              onChange={(role) => role && put({ role: role as Flash['role'] })}
            />
            {!light.on_camera && (
              <>
                <Figure
                  label="Bearing"
                  suffix="°"
                  step={5}
                  value={light.bearing_deg ?? -32}
                  error={error('bearing_deg')}
                  onChange={(bearing_deg) => put({ bearing_deg })}
                />
                <Figure
                  label="Height"
                  suffix="°"
                  step={5}
                  value={light.height_deg ?? 30}
                  error={error('height_deg')}
                  onChange={(height_deg) => put({ height_deg })}
                />
              </>
            )}
            <Figure
              label="Feathered by"
              suffix="°"
              step={5}
              value={light.off_axis_deg ?? 0}
              error={error('off_axis_deg')}
              onChange={(off_axis_deg) => put({ off_axis_deg })}
            />
            {!light.on_camera && (
              <MaybeFigure
                label="Boom"
                suffix=" m"
                step={0.5}
                placeholder="on its stand"
                value={light.boom_m}
                error={error('boom_m')}
                onChange={(boom_m) => put({ boom_m })}
              />
            )}
            {light.role === 'rim' && (
              <MaybeFigure
                label="Its edge brighter by"
                title="Grazing light: how much brighter a rim looks at its edge than a meter turned to it reads"
                suffix=" stops"
                step={0.1}
                placeholder={seen?.grazing_stops == null ? 'by angle' : signedStops(seen.grazing_stops)}
                value={light.grazing_stops}
                error={error('grazing_stops')}
                onChange={(grazing_stops) => put({ grazing_stops })}
              />
            )}
            <Switch
              size="xs"
              mt={20}
              label="Bounced"
              checked={!!light.bounce}
              onChange={(event) => put({ bounce: event.currentTarget.checked ? WALL : undefined })}
            />
            <Switch
              size="xs"
              mt={20}
              label="On the camera"
              checked={!!light.on_camera}
              error={error('on_camera')}
              onChange={(event) => {
                const on_camera = event.currentTarget.checked
                put(on_camera ? { on_camera, boom_m: undefined, flag: undefined } : { on_camera })
              }}
            />
          </SimpleGrid>
        </Group>
        {light.bounce && (
          <SimpleGrid cols={3} spacing="xs" mt="xs">
            <Figure
              label="From flash to wall"
              suffix=" m"
              step={0.1}
              value={light.bounce.surface_m}
              error={error('bounce.surface_m')}
              onChange={(surface_m) => put({ bounce: { ...light.bounce!, surface_m } })}
            />
            <Figure
              label="Head turned up"
              suffix="°"
              step={5}
              value={light.bounce.tilt_deg}
              error={error('bounce.tilt_deg')}
              onChange={(tilt_deg) => put({ bounce: { ...light.bounce!, tilt_deg } })}
            />
            <Figure
              label="Tone of the wall"
              step={0.05}
              value={light.bounce.reflectance}
              error={error('bounce.reflectance')}
              onChange={(reflectance) => put({ bounce: { ...light.bounce!, reflectance } })}
            />
            <Checkbox
              size="xs"
              label="It has a colour"
              checked={light.bounce.coloured ?? false}
              onChange={(event) =>
                put({ bounce: { ...light.bounce!, coloured: event.currentTarget.checked } })
              }
            />
          </SimpleGrid>
        )}
        {shot.parts.length > 0 && light.role !== 'backdrop' && (
          <Group gap={8} mt="xs">
            <Text size="xs">Reaches</Text>
            <Reaches parts={shot.parts} misses={light.misses} onChange={(misses) => put({ misses })} />
          </Group>
        )}
      </Tabs.Panel>
      <Tabs.Panel value="wanted">
        <Wanted shot={shot} index={index} seen={seen} error={error} onChange={onChange} />
      </Tabs.Panel>
      <Tabs.Panel value="firing">
        <Stack gap="xs">
          <SimpleGrid cols={3} spacing="xs">
            <Select
              size="xs"
              label="Group"
              allowDeselect={false}
              comboboxProps={{ withinPortal: false }}
              data={[...'ABCDEFGHIJKL']}
              value={light.group ?? 'A'}
              onChange={(group) => group && put({ group })}
            />
            <Figure
              label="Its channel"
              min={1}
              value={light.channel ?? 1}
              error={error('channel')}
              onChange={(channel) => put({ channel: Math.trunc(channel) })}
            />
            <Figure
              label="Camera's channel"
              min={1}
              value={shot.channel ?? 1}
              error={refusal?.field === 'channel' ? refusal.detail : undefined}
              onChange={(channel) => onChange({ ...shot, channel: Math.trunc(channel) })}
            />
          </SimpleGrid>
          <SegmentedControl
            size="xs"
            aria-label="Power by"
            value={light.automatic ? 'automatic' : 'manual'}
            onChange={(by) => put({ automatic: by === 'automatic' ? { bias_stops: 0 } : undefined })}
            data={choices({
              manual: 'Power by hand',
              automatic: 'Automatic, with a bias',
            })}
          />
          {light.automatic && (
            <Text size="xs" c="dimmed">
              It aims at a middle grey and follows people who come nearer. It is fooled by dark walls and
              white clothes: say what is in the frame under Tones.
            </Text>
          )}
          {seen && (
            <Text size="xs" c="dimmed">
              {seen.supply.said}
            </Text>
          )}
        </Stack>
      </Tabs.Panel>
    </Tabs>
  )
}
