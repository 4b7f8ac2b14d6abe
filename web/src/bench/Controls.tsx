import type { BenchAnswer, Held, HoldAnswer, Moved, Problem, Shot, Strip } from '../api/client'
import { NotchedStrip } from '../controls/NotchedStrip'
import { AmbientPanel } from './AmbientPanel'
import { HoldChips, toggled } from './HoldChips'
import { CameraChoice, FlashChoice } from './KitChoice'
import { Ways } from './Ways'
import { valueAt, withValue } from '../api/pointer'
import classes from './Controls.module.css'

/** The key that focuses each control. */
export const SHORTCUTS: Record<string, string> = {
  aperture: 'A',
  shutter: 'S',
  iso: 'I',
  filter: 'N',
  focal: 'F',
  subject_distance: 'G',
  power: 'P',
  flash_distance: 'D',
  sync: 'Y',
}
const CAMERA = ['aperture', 'shutter', 'iso', 'filter', 'focal', 'subject_distance']
/** Controls that can be locked and can follow. */
const LOCKABLE = new Set<string>(['aperture', 'shutter', 'iso', 'filter', 'power', 'flash_distance'])
const FLASH = ['power', 'flash_distance', 'sync']

type Props = {
  shot: Shot
  answer: BenchAnswer | undefined
  refusal: Problem | undefined
  held: HoldAnswer | undefined
  onChange: (shot: Shot) => void
  /** A control was turned, or the light: what is held stays. */
  onTurn: (turned: Held | undefined, shot: Shot) => void
  onMoved: (moved: Moved[]) => void
}

/** Where the shot stands on a strip: at once while a key is held, else where the program says. */
function indexOn(strip: Strip, shot: Shot): number {
  const value = valueAt(shot, strip.pointer)
  const exact = strip.notches.findIndex((notch) => notch.value === value)
  return exact < 0 ? strip.index : exact
}

/** One block for the camera, one for the flash, one for the steady light. */
export function Controls({ shot, answer, refusal, held, onChange, onTurn, onMoved }: Props) {
  const strips = new Map(answer?.strips.map((strip) => [strip.id, strip]))
  const control = (id: string) => {
    const strip = strips.get(id)
    if (!strip) return <div key={id} className={classes.empty} />
    const field = strip.pointer.slice(1).replaceAll('/', '.')
    return (
      <NotchedStrip
        key={id}
        strip={strip}
        index={indexOn(strip, shot)}
        shortcut={SHORTCUTS[id] ?? ''}
        error={refusal?.field === field ? refusal.detail : undefined}
        locked={shot.hold?.includes(id as Held)}
        followed={held?.followed
          .find(({ pointer }) => pointer === strip.pointer)
          ?.words.split(', ')
          .at(-1)
          ?.replace(/ clicks?/, '')}
        onLock={LOCKABLE.has(id) ? () => onChange(toggled(shot, id as Held)) : undefined}
        onChange={(index) =>
          onTurn(
            LOCKABLE.has(id) ? (id as Held) : undefined,
            withValue(shot, strip.pointer, strip.notches[index]!.value),
          )
        }
      />
    )
  }
  return (
    <div className={classes.controls}>
      <section className={classes.block} aria-label="Camera">
        <h2 className={classes.title}>
          Camera <CameraChoice shot={shot} refusal={refusal} onChange={onChange} onMoved={onMoved} />
          <HoldChips shot={shot} answer={held} onChange={onChange} />
        </h2>
        <div className={classes.two}>{CAMERA.map(control)}</div>
      </section>
      <section className={classes.block} aria-label="Flash">
        <h2 className={classes.title}>
          Key <FlashChoice shot={shot} refusal={refusal} onChange={onChange} onMoved={onMoved} />
          <span className={classes.spacer} />
          <Ways shot={shot} onTake={(to) => onTurn(undefined, to)} />
        </h2>
        {FLASH.map(control)}
      </section>
      <AmbientPanel
        shot={shot}
        forecast={answer?.forecast}
        refusal={refusal}
        onChange={(to) => onTurn(undefined, to)}
        onShot={onChange}
      />
    </div>
  )
}
