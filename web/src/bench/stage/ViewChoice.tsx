import { useDeferredValue, useMemo } from 'react'
import type { Composition, Shot } from '../../api/client'
import { ShotFrame } from '../../marks/ShotFrame'
import { paced } from '../../words/figures'
import classes from './PictureChoice.module.css'

type Change = Pick<Composition, 'camera_height_m'> | Pick<Composition, 'upright'>
type Props = {
  shot: Shot
  stage: Composition
  onChange: (to: Change) => void
}

/** From where a lens looks, in metres over the floor. */
const HEIGHTS: [number, string][] = [
  [0.2, 'On the floor'],
  [0.6, 'Sitting'],
  [1.1, 'Kneeling'],
  [1.6, 'Standing'],
  [2.3, 'Arms up'],
  [3.5, 'On a ladder'],
]

const HOLDS: [Composition['upright'], string][] = [
  [null, 'Level'],
  ['up', 'Upright, grip up'],
  ['down', 'Upright, grip down'],
]

/** From where the camera looks and how it is held, by what it then sees of this very shot. */
export function ViewChoice({ shot, stage, onChange }: Props) {
  // Pictures to choose from have time; the frame goes first.
  const [seen, of] = [useDeferredValue(shot), useDeferredValue(stage)]
  const heights = HEIGHTS.map(([camera_height_m, word]) => ({
    to: { camera_height_m },
    word: `${word}, ${paced(camera_height_m)}`,
    chosen: Math.abs(stage.camera_height_m - camera_height_m) < 0.05,
  }))
  const holds = HOLDS.map(([upright, word]) => ({
    to: { upright },
    word,
    chosen: (stage.upright ?? null) === upright,
  }))
  const groups = { 'Height of the camera': heights, 'How the camera is held': holds }
  return Object.entries(groups).map(([label, views]) => (
    <div key={label} className={classes.grid} role="group" aria-label={label}>
      {views.map((view, index) => (
        <View key={index} shot={seen} stage={of} {...view} onChange={onChange} />
      ))}
    </div>
  ))
}

type ViewProps = Props & { to: Change; word: string; chosen: boolean }

function View({ shot, stage, to, word, chosen, onChange }: ViewProps) {
  const told = JSON.stringify(to)
  const there = useMemo(
    () => ({ ...shot, stage: { ...stage, ...(JSON.parse(told) as Change) } }),
    [shot, stage, told],
  )
  return (
    <button type="button" className={classes.one} aria-pressed={chosen} onClick={() => onChange(to)}>
      <span className={classes.view}>
        <ShotFrame shot={there} width={184} />
      </span>
      {word}
    </button>
  )
}
