import { Checkbox, CloseButton } from '@mantine/core'
import type { ReactNode } from 'react'
import type { Wish } from '../api/client'
import { MaybeFigure } from '../controls/MaybeFigure'
import { TimeFigure } from '../controls/TimeFigure'
import panel from '../theme/panel.module.css'
import classes from './WishPanel.module.css'

type Props = {
  /** What the photographer has said. */
  own: Wish
  /** All of it, with what the shot says. */
  asked: Wish
  onChange: (wish: Wish) => void
}
type Name = keyof Wish

/** What a set-up has to meet: the shot says it, and here it is tightened or loosened. */
export function WishPanel({ own, asked, onChange }: Props) {
  const set = (change: Partial<Wish>) => onChange({ ...own, ...change })
  const drop = (...names: Name[]) => {
    const rest = { ...own }
    for (const name of names) delete rest[name]
    onChange(rest)
  }
  const figure = (name: Name, label: string, suffix = '') => (
    <MaybeFigure
      variant="unstyled"
      decimals={2}
      aria-label={label}
      placeholder="free"
      suffix={suffix}
      value={asked[name] as number | null | undefined}
      onChange={(value) => (value === undefined ? drop(name) : set({ [name]: value }))}
    />
  )
  const time = (name: 'slowest' | 'fastest', label: string) => (
    <TimeFigure
      variant="unstyled"
      aria-label={label}
      value={asked[name] ?? undefined}
      onChange={(value) => (value === undefined ? drop(name) : set({ [name]: value }))}
    />
  )
  const end = (name: 'ambient' | 'background', side: 'low_stops' | 'high_stops', label: string) => (
    <MaybeFigure
      variant="unstyled"
      decimals={2}
      aria-label={label}
      placeholder="open"
      value={asked[name]?.[side]}
      onChange={(value) => set({ [name]: { ...asked[name], [side]: value ?? null } })}
    />
  )
  const line = (names: Name[], label: string, children: ReactNode) => (
    <div className={classes.line} data-own={names.some((name) => own[name] !== undefined) || undefined}>
      <span>{label}</span>
      <span className={classes.values}>{children}</span>
      {names.some((name) => own[name] !== undefined) && (
        <CloseButton size="xs" aria-label={`${label}: as the shot says`} onClick={() => drop(...names)} />
      )}
    </div>
  )
  return (
    <section className={classes.panel} aria-label="What is asked">
      <h2 className={panel.title}>
        Asked <small>by the shot, or by you</small>
      </h2>
      <h3>Picture</h3>
      {line(['key_within_stops'], 'Key within ±', figure('key_within_stops', 'Key within', ' st'))}
      {line(
        ['ambient'],
        'Ambient',
        <>
          {end('ambient', 'low_stops', 'Ambient from')} to {end('ambient', 'high_stops', 'Ambient to')}
        </>,
      )}
      {line(
        ['background'],
        'Background',
        <>
          {end('background', 'low_stops', 'Background from')} to{' '}
          {end('background', 'high_stops', 'Background to')}
        </>,
      )}
      {(asked.blur ?? []).map(({ part, px }) => (
        <div
          key={part}
          className={classes.line}
          data-own={own.blur?.some((one) => one.part === part) || undefined}
        >
          <span>{part} blurs to</span>
          <span className={classes.values}>
            <MaybeFigure
              variant="unstyled"
              decimals={2}
              aria-label={`Blur of ${part}`}
              suffix=" px"
              value={px}
              onChange={(value) => set({ blur: limits(own, part, value) })}
            />
          </span>
          {own.blur?.some((one) => one.part === part) && (
            <CloseButton
              size="xs"
              aria-label={`${part}: as the shot says`}
              onClick={() => set({ blur: limits(own, part, undefined) })}
            />
          )}
        </div>
      ))}
      {line(
        ['freeze_at_most_ms'],
        'A flash lasts at most',
        figure('freeze_at_most_ms', 'A flash lasts at most', ' ms'),
      )}
      {line(
        ['even_within_stops'],
        'Even over the area within',
        figure('even_within_stops', 'Even over the area within', ' st'),
      )}
      {line(['depth_m'], 'Depth', figure('depth_m', 'Depth', ' m'))}
      {line(['trail'], 'Trails hidden under ΔL*', figure('trail', 'Trails hidden under'))}
      {line(
        ['darker_stops'],
        'Steady light falls by',
        figure('darker_stops', 'Steady light falls by', ' st'),
      )}
      <h3>Camera</h3>
      {line(
        ['iso_min', 'iso_max'],
        'ISO, noise',
        <>
          {figure('iso_min', 'ISO from')} to {figure('iso_max', 'ISO to')}
        </>,
      )}
      {line(
        ['aperture_min_f', 'aperture_max_f'],
        'Aperture, f/',
        <>
          {figure('aperture_min_f', 'Aperture from')} to {figure('aperture_max_f', 'Aperture to')}
        </>,
      )}
      {line(
        ['slowest', 'fastest'],
        'Shutter',
        <>
          {time('slowest', 'Slowest')} to {time('fastest', 'Fastest')}
        </>,
      )}
      {line(['filter_max_stops'], 'ND at most', figure('filter_max_stops', 'ND at most', ' st'))}
      <Checkbox
        size="xs"
        label="High-speed sync allowed"
        checked={asked.high_speed ?? false}
        onChange={(event) => set({ high_speed: event.currentTarget.checked })}
      />
      <h3>Lights</h3>
      <Checkbox
        size="xs"
        label="They stay where they stand"
        checked={asked.places_stay ?? false}
        onChange={(event) => set({ places_stay: event.currentTarget.checked })}
      />
      {line(
        ['nearest_m', 'farthest_m'],
        'Distance',
        <>
          <MaybeFigure
            variant="unstyled"
            aria-label="No nearer than"
            placeholder="frame"
            suffix=" m"
            value={asked.nearest_m}
            onChange={(value) => (value === undefined ? drop('nearest_m') : set({ nearest_m: value }))}
          />{' '}
          to {figure('farthest_m', 'No farther than', ' m')}
        </>,
      )}
      <Checkbox
        size="xs"
        label="Any modifier"
        checked={asked.any_modifier ?? false}
        onChange={(event) => set({ any_modifier: event.currentTarget.checked })}
      />
      {line(
        ['frames', 'frames_per_second'],
        'Burst',
        <>
          {figure('frames', 'Frames in a row', ' at')} {figure('frames_per_second', 'Frames a second', '/s')}
        </>,
      )}
      {line(['flashes'], 'Flashes on a charge', figure('flashes', 'Flashes on a charge'))}
      {line(['heads'], 'Heads side by side', figure('heads', 'Heads side by side'))}
      {line(['stands'], 'Stands in all', figure('stands', 'Stands in all'))}
      {line(['weight_kg'], 'To carry, at most', figure('weight_kg', 'To carry, at most', ' kg'))}
      {(own.borrowed ?? []).map(({ unit, count }) => (
        <div key={unit} className={classes.line} data-own>
          <span>As if borrowed</span>
          <span className={classes.values}>
            {count} × {unit}
          </span>
          <CloseButton
            size="xs"
            aria-label={`Without ${unit}`}
            onClick={() => set({ borrowed: own.borrowed!.filter((one) => one.unit !== unit) })}
          />
        </div>
      ))}
    </section>
  )
}

const limits = (own: Wish, part: string, px: number | undefined) => [
  ...(own.blur ?? []).filter((one) => one.part !== part),
  ...(px === undefined ? [] : [{ part, px }]),
]
