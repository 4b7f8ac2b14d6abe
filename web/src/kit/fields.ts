import type { Item, Kind } from '../api/client'
import { choices } from '../words/choices'
import { controlFields, freshControl, WAYS_TO_CHOOSE } from './control'
import { valueAt } from '../api/pointer'
import { isNeeded, maybe, number, type Field, type Group } from './field'
import { UNIT_KINDS } from './words'

const NAME: Field = { pointer: '/name', label: 'Name', as: 'text' }
const MASS = maybe('/mass_kg', 'Weight', ' kg')

type Of<K extends Kind> = Extract<Item, { what: K }>['item']

/** A figure that was read stands on what was in front of the flash: nothing, unless it is said. */
const AS_IT_STANDS = { id: 'none', name: 'As it stands', stops: 0, face_radius_m: 0.09 }
const freshOutput = (as: string) => (as === 'reading' ? { as, modifier: AS_IT_STANDS } : { as })

function output(of: Of<'unit'>['output'] | undefined): Field[] {
  const at = (name: string) => `/output/${name}`
  switch (of?.as) {
    case undefined:
      return []
    case 'guide_number':
      return [number(at('metres'), 'Guide number', ' m, ISO 100')]
    case 'reading':
      return [
        number(at('aperture_f'), 'f-number read'),
        number(at('iso'), 'Meter at ISO'),
        number(at('distance_m'), 'Meter at', ' m'),
        { ...number(at('power'), 'Fired at, of full'), kind: 'power' },
        number(at('modifier/stops'), 'Modifier in place', ' stops'),
        number(at('modifier/face_radius_m'), 'Radius of its face', ' m'),
      ]
    case 'exposure':
      return [number(at('exposure_lxs'), 'Exposure', ' lx·s'), number(at('distance_m'), 'At', ' m')]
    case 'energy':
      return [number(at('joules'), 'Energy', ' J'), maybe(at('half_angle_deg'), 'Half-angle of beam', '°')]
  }
}

function unit(of: Of<'unit'>): Group[] {
  const heat: Field[] = of.heat
    ? [
        number('/heat/capacity_j', 'From cold', ' J'),
        number('/heat/drain_w', 'Gives off', ' W'),
        {
          pointer: '/heat/then',
          label: 'Then it',
          as: 'word',
          words: choices({ waits: 'recycles slowly', refuses: 'does not fire' }),
        },
      ]
    : []
  return [
    { title: 'Unit', fields: [NAME] },
    {
      title: 'Output at full power',
      fields: [
        {
          pointer: '/output',
          label: 'Known as',
          as: 'word',
          words: choices({
            guide_number: 'guide number',
            reading: 'f-number at a distance',
            exposure: 'lux-seconds at a distance',
            energy: 'joules only',
          }),
          fresh: freshOutput,
        },
        ...output(of.output),
        { pointer: '/output_from', label: 'It is', as: 'source' },
        ...(of.output_from?.origin === 'measured'
          ? [
              {
                pointer: '/leaflet_output',
                label: 'Leaflet says',
                suffix: ' m',
                as: 'leaflet',
              } as Field,
            ]
          : []),
      ],
    },
    {
      title: 'Durations',
      fields: [
        {
          pointer: '/control',
          label: 'Makes less light by',
          as: 'word',
          words: WAYS_TO_CHOOSE,
          fresh: freshControl,
        },
        ...controlFields(of.control),
        { pointer: '/durations_from', label: 'They are', as: 'source' },
        { pointer: '/corrections', label: 'Longer or shorter by', as: 'corrections' },
        ...(of.recordings?.length
          ? [
              {
                pointer: '/ignore_recordings',
                label: 'Go by these although there are recordings',
                as: 'yes',
              } as Field,
            ]
          : []),
      ],
    },
    {
      title: 'Dial and timing',
      fields: [
        {
          pointer: '/dial',
          label: 'Power is written',
          as: 'word',
          optional: true,
          words: choices({
            fractions: 'as fractions: 1/16',
            numbers: 'as numbers, 10 is full: 6.0',
            percent: 'in percent: 6.25 %',
            joules: 'in joules: 25 J',
          }),
        },
        maybe('/step_stops', 'One step', ' stops'),
        maybe('/lowest_stops', 'Goes down by', ' stops'),
        maybe('/lag_ms', 'Own delay', ' ms'),
        { pointer: '/high_speed_sync', label: 'Can glow for high-speed sync', as: 'yes' },
        ...(of.high_speed_sync
          ? [{ ...maybe('/high_speed_efficiency', 'Glow against a pulse'), kind: 'share' as const }]
          : []),
        maybe('/heads', 'Heads, 1 or 2'),
        ...(of.heads === 2 ? [maybe('/two_heads_time', 'With two, times are ×')] : []),
      ],
    },
    {
      title: 'Store and habits',
      fields: [
        { pointer: '/kind', label: 'Kind', as: 'word', optional: true, words: choices(UNIT_KINDS) },
        maybe('/energy_j', 'Energy at full', ' J'),
        { pointer: '/battery', label: 'Fed by', as: 'battery' },
        maybe('/recycle_s', 'Ready again after full', ' s'),
        maybe('/min_interval_ms', 'Never sooner than', ' ms'),
        {
          pointer: '/when_early',
          label: 'Fired before ready',
          as: 'word',
          optional: true,
          words: choices({ dim: 'fires dimmer', missing: 'does not fire' }),
        },
        {
          pointer: '/heat',
          label: 'Acts on its heat',
          as: 'word',
          optional: true,
          words: choices({ waits: 'recycles slowly', refuses: 'does not fire' }),
          fresh: (then) => ({ capacity_j: 20_000, drain_w: 80, then }),
        },
        ...heat,
        {
          pointer: '/low_battery',
          label: 'On a low battery',
          as: 'word',
          optional: true,
          words: choices({ slower: 'takes longer', dim: 'dimmer, and says ready', refuses: 'stops' }),
        },
      ],
    },
    {
      title: 'Colour and weight',
      fields: [
        maybe('/colour_k', 'Colour at full', ' K'),
        maybe('/lowest_power_mired', 'Shift at lowest', ' mired'),
        MASS,
        maybe('/owned', 'Owned'),
      ],
    },
  ]
}

/** What has to be known still before a thing can be kept. */
export const missing = (thing: Item): Field[] =>
  fieldsOf(thing)
    .flatMap((group) => group.fields)
    .filter(
      (field) =>
        isNeeded(field) && [undefined, null, ''].includes(valueAt(thing.item, field.pointer) as string),
    )

/** What can be entered for a thing, in groups. */
export function fieldsOf(thing: Item): Group[] {
  switch (thing.what) {
    case 'unit':
      return unit(thing.item)
    case 'camera':
      return [
        {
          title: 'Camera',
          fields: [
            NAME,
            {
              pointer: '/shutter_kind',
              label: 'Shutter',
              as: 'word',
              words: choices({
                focal_plane: 'focal-plane',
                leaf: 'leaf',
                global: 'global, electronic',
                rolling: 'rolling, electronic',
              }),
            },
            { pointer: '/sync', label: 'Sync speed', as: 'time' },
            maybe('/travel_ms', 'Curtain travel or readout', ' ms'),
            maybe('/guard_ms', 'Left before second curtain', ' ms'),
            { pointer: '/high_speed_sync', label: 'Can ask a flash to glow', as: 'yes' },
            {
              pointer: '/first_row',
              label: 'First row at the',
              as: 'word',
              words: choices({ bottom: 'bottom of the picture', top: 'top of the picture' }),
            },
            { pointer: '/fastest', label: 'Fastest', as: 'time' },
            { pointer: '/slowest', label: 'Slowest', as: 'time' },
            maybe('/frames_per_second', 'Frames', ' a second'),
          ],
        },
        {
          title: 'Sensor',
          fields: [
            number('/iso_min', 'Lowest ISO'),
            number('/iso_max', 'Highest ISO'),
            {
              pointer: '/grid',
              label: 'Dials are cut in',
              as: 'word',
              words: choices({ thirds: 'thirds', halves: 'halves' }),
            },
            number('/sensor_width_mm', 'Width', ' mm'),
            number('/sensor_height_mm', 'Height', ' mm'),
            number('/pixels_wide', 'Pixels across'),
            MASS,
          ],
        },
      ]
    case 'lens':
      return [
        {
          title: 'Lens',
          fields: [
            NAME,
            number('/focal_min_mm', 'Shortest', ' mm'),
            number('/focal_max_mm', 'Longest', ' mm'),
            number('/widest_f', 'Widest, f/'),
            number('/narrowest_f', 'Smallest, f/'),
            { pointer: '/leaf_fastest', label: 'Leaf shutter to', as: 'maybe-time' },
            MASS,
          ],
        },
      ]
    case 'modifier':
      return [
        {
          title: 'Modifier',
          fields: [
            NAME,
            { ...number('/stops', 'Change on axis', ' stops'), hint: 'or two readings: f/8 to f/5.6' },
            number('/face_radius_m', 'Radius of its face', ' m'),
            maybe('/source_offset_m', 'Light seems to come from', ' m behind'),
            maybe('/half_angle_deg', 'Beam, half-angle', '°'),
            maybe('/grid_deg', 'Grid, half-angle', '°'),
            maybe('/diffusion_layers', 'Further layers'),
            maybe('/layer_stops', 'Each of them', ' stops'),
            MASS,
          ],
        },
      ]
    case 'filter':
      return [
        {
          title: 'Gel or filter',
          fields: [
            NAME,
            {
              pointer: '/used_as',
              label: 'Used as',
              as: 'word',
              words: choices({
                gel: 'gel on a light',
                nd: 'grey on the lens',
                polariser: 'polariser on the lens',
                lens: 'colour on the lens',
                close_up: 'bellows, ring or close-up lens',
              }),
            },
            {
              ...number('/loss_stops', 'Loss', ' stops'),
              kind: 'filter',
              hint: 'or ND 0.9, or what goes through: 25 %',
            },
            { ...maybe('/mired', 'Shift', ' mired'), hint: 'positive is warmer' },
            { pointer: '/hue', label: 'Colour of its own', as: 'hue' },
          ],
        },
      ]
    case 'trigger':
      return [
        {
          title: 'Trigger',
          fields: [
            NAME,
            number('/lag_ms', 'Delay', ' ms'),
            maybe('/range_m', 'Reaches', ' m'),
            maybe('/channels', 'Channels'),
            maybe('/groups', 'Groups'),
          ],
        },
      ]
    case 'battery':
      return [
        {
          title: 'Battery',
          fields: [
            NAME,
            number('/usable_wh', 'Usable', ' Wh'),
            { ...number('/efficiency', 'Share that reaches the flash'), kind: 'share' },
            maybe('/idle_w', 'Draws while waiting', ' W'),
            MASS,
          ],
        },
      ]
    case 'lamp':
      return [
        {
          title: 'Lamp',
          fields: [
            NAME,
            { ...number('/lux_at_1m', 'At one metre', ' lx'), hint: 'or f/2.8 1/60 ISO 800 at 2 m' },
            { ...number('/colour_k', 'Colour', ' K'), hint: 'of its white, where it makes colours' },
            { pointer: '/hue', label: 'Colour of its own', as: 'hue' },
            maybe('/half_angle_deg', 'Beam, half-angle', '°'),
            { pointer: '/modelling', label: 'Modelling lamp of a flash', as: 'yes' },
            {
              pointer: '/flicker',
              label: 'Flickers',
              as: 'word',
              words: choices({ none: 'not', some: 'a little', strong: 'strongly' }),
            },
            maybe('/watts', 'Draws', ' W'),
          ],
        },
      ]
  }
}
