import type { ReactNode } from 'react'
import { useQuery } from '@tanstack/react-query'
import { answered, client, type Filter, type Item, type Kind, type Kit } from '../api/client'
import { valueAt } from '../api/pointer'
import { FaceAndBeam } from './FaceAndBeam'
import { fieldsOf } from './fields'
import { StandsAmong } from './StandsAmong'
import classes from './ThingView.module.css'

const LISTS: Record<Kind, Exclude<keyof Kit, 'format' | 'version' | 'retired'>> = {
  unit: 'units',
  camera: 'cameras',
  lens: 'lenses',
  modifier: 'modifiers',
  filter: 'filters',
  trigger: 'triggers',
  battery: 'batteries',
  lamp: 'lamps',
}

type Named = { id: string; name: string }

/** Anything but a flash unit: each figure where it stands among the others of its kind. */
export function ThingView({ thing, children }: { thing: Item; children: ReactNode }) {
  const kit = useQuery({ queryKey: ['kit', 'offered'], queryFn: () => answered(client.GET('/api/kit')) }).data
  const others = ((kit?.[LISTS[thing.what]] ?? []) as Named[]).filter((other) => other.id !== thing.item.id)
  const fields = fieldsOf(thing).flatMap((group) => group.fields)
  const figures = fields.filter((field) => field.as === 'number' || field.as === 'maybe')
  const words = fields.filter((field) => field.pointer !== '/name' && !figures.includes(field))
  const of = (item: unknown, pointer: string) => valueAt(item, pointer)
  return (
    <>
      <section className={classes.middle} aria-label="Where it stands">
        <h2 className={classes.title}>
          Among the others <small>each figure, small to large</small>
        </h2>
        {figures.map((field) => {
          const own = of(thing.item, field.pointer)
          return (
            <StandsAmong
              key={field.pointer}
              label={field.label}
              suffix={field.suffix ?? ''}
              own={typeof own === 'number' ? own : undefined}
              others={others.flatMap((other) => {
                const value = of(other, field.pointer)
                return typeof value === 'number' ? [{ name: other.name, value }] : []
              })}
            />
          )
        })}
        <dl className={classes.words}>
          {words.map((field) => {
            const value = of(thing.item, field.pointer)
            const word =
              field.as === 'word' ? field.words.find((one) => one.value === value)?.label : undefined
            const hue = field.as === 'hue' ? (value as Filter['hue']) : undefined
            if (field.as === 'hue' && !hue) return null
            const text = hue
              ? `${hue.hue_deg}°, ${Math.round(hue.saturation * 100)} % pure`
              : field.as === 'yes'
                ? value
                  ? 'yes'
                  : 'no'
                : (word ?? value ?? 'none')
            return (
              <div key={field.pointer}>
                <dt>{field.label}</dt>
                <dd>{String(text)}</dd>
              </div>
            )
          })}
        </dl>
        {thing.what === 'modifier' && <FaceAndBeam modifier={thing.item} />}
        {thing.what === 'lamp' && thing.item.half_angle_deg != null && (
          <FaceAndBeam modifier={{ face_radius_m: 0.05, half_angle_deg: thing.item.half_angle_deg }} />
        )}
      </section>
      <aside className={classes.side}>{children}</aside>
    </>
  )
}
