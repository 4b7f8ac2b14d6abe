import {
  answered,
  client,
  type BenchAnswer,
  type Held,
  type HoldAnswer,
  type Moved,
  type Problem,
  type Shot,
  type Strip,
} from '../api/client'
import { Key } from '../commands/Key'
import { COMMANDS, keyOf, type CommandId } from '../commands/list'
import { NotchedStrip } from '../controls/NotchedStrip'
import { UnstyledButton } from '@mantine/core'
import { AmbientPanel } from './AmbientPanel'
import { BeforeLens, Burst, CameraMoves, More, Tones } from './More'
import { HoldChips, toggled } from './HoldChips'
import { CameraChoice } from './KitChoice'
import { LightsHead } from './lights/LightsHead'
import { useOpened } from './Bay'
import { rebased } from '../api/rebased'
import { useSteady } from '../shell/useSteady'
import { memo } from 'react'
import { valueAt, withValue } from '../api/pointer'
import classes from './Controls.module.css'

/** The key that focuses each control. */
const CAMERA = ['aperture', 'shutter', 'iso', 'filter', 'focal', 'subject_distance']
/** Controls that can be locked and can follow. */
const LOCKABLE = new Set<string>(['aperture', 'shutter', 'iso', 'filter', 'power', 'flash_distance'])
/** Under the light in hand; one that is left to its automatic has a bias in place of a power. */
const FLASH = ['power', 'bias', 'flash_distance', 'sync']
/** Every strip, as the program calls it. */
export const STRIPS = [...CAMERA, ...FLASH]

type Props = {
  shot: Shot
  /** As it was when it was last worked out. */
  workedOut: Shot
  answer: BenchAnswer | undefined
  refusal: Problem | undefined
  held: HoldAnswer | undefined
  /** The light in hand, and the one that is alone in the picture. */
  light: number
  solo: number | undefined
  onLight: (index: number) => void
  onSolo: (index: number | undefined) => void
  onChange: (shot: Shot) => void
  /** A control was turned, or the light: what is held stays. */
  onTurn: (turned: Held | undefined, shot: Shot, light?: number) => void
  onMoved: (moved: Moved[]) => void
  onDrag: () => void
  onGroups: () => void
}

/** Colour and movement of the camera, in a few words. */
function movementWord({ camera }: Shot): string {
  const { movement, white_balance_k } = camera
  const moves = movement
    ? [
        movement.pan_m_s && `pans ${movement.pan_m_s} m/s`,
        movement.swing_deg_s && `swings ${movement.swing_deg_s}°/s`,
        movement.shake_deg_s && 'by hand',
        movement.zoom_share && 'zooms',
      ]
    : []
  return [`WB ${white_balance_k ?? 5500} K`, ...moves.filter(Boolean)].join(' · ')
}

/** What is before the lens besides grey, in a few words. */
const lensWord = ({ camera: { filters = [] } }: Shot): string =>
  filters.length > 0 ? filters.map(({ name }) => name).join(' + ') : 'Filters'

/** The burst in a few words. */
const burstWord = ({ burst }: Shot): string =>
  burst ? `${burst.frames} at ${burst.per_second} a second` : 'Burst'

/** Where the shot stands on a strip: at once while a key is held, else where the program says. */
function indexOn(strip: Strip, shot: Shot): number {
  const value = valueAt(shot, strip.pointer)
  const exact = strip.notches.findIndex((notch) => notch.value === value)
  return exact < 0 ? strip.index : exact
}

/**
 * One block for the camera, one for the lights, one for the steady light. The strips follow the hand at once. What stands
 * around them goes with the figures, for a picture is waiting to be seen before; while something of it is open, it is at work
 * itself and follows the hand as well.
 */
export function Controls(props: Props) {
  const { shot, answer, refusal, held, light, solo, onLight, onSolo, onMoved, onDrag, onGroups } = props
  const around = useOpened() ? shot : props.workedOut
  const turn = useSteady(props.onTurn)
  const choose = useSteady(onLight)
  const alone = useSteady(onSolo)
  const moved = useSteady(onMoved)
  const drag = useSteady(onDrag)
  const groups = useSteady(onGroups)
  // What is changed around is changed in the shot that was seen there, and the strips may have gone on.
  const change = useSteady((to: Shot) => props.onChange(rebased(around, to, shot)))
  const turnAround = useSteady((turned: Held | undefined, to: Shot) =>
    props.onTurn(turned, rebased(around, to, shot)),
  )
  const other = useSteady((to: Shot) => turnAround(undefined, to))
  const filter = useSteady((to: Shot) => turnAround('filter', to))
  const lock = useSteady((strip: Held) => props.onChange(toggled(shot, strip)))
  const set = useSteady((strip: Strip, index: number) =>
    turn(
      LOCKABLE.has(strip.id) ? (strip.id as Held) : undefined,
      withValue(shot, strip.pointer, strip.notches[index]!.value),
      strip.light ?? undefined,
    ),
  )
  const understand = useSteady((strip: Strip, text: string) =>
    answered(
      client.POST('/api/strip', { body: { shot, strip: strip.id, light: strip.light ?? null, text } }),
    ),
  )

  const here = answer?.strips.filter((strip) => strip.light == null || strip.light === light)
  const strips = new Map(here?.map((strip) => [strip.id, strip]))
  const control = (id: string) => {
    const strip = strips.get(id)
    if (!strip) return <div key={id} className={classes.empty} />
    const field = strip.pointer
      .slice(1)
      .replace(/\/(\d+)/g, '[$1]')
      .replaceAll('/', '.')
    return (
      <Control
        key={`${id}${strip.light ?? ''}`}
        strip={strip}
        index={indexOn(strip, shot)}
        error={refusal?.field === field ? refusal.detail : undefined}
        locked={shot.hold?.includes(id as Held)}
        followed={held?.followed
          .find(({ pointer }) => pointer === strip.pointer)
          ?.words.split(', ')
          .at(-1)
          ?.replace(/ clicks?/, '')}
        onSet={set}
        onLock={lock}
        understand={understand}
      />
    )
  }
  return (
    <div className={classes.controls}>
      <section className={classes.block} aria-label="Camera">
        <CameraHead
          shot={around}
          refusal={refusal}
          held={held}
          onChange={change}
          onLock={lock}
          onMoved={moved}
        />
        <div className={classes.two}>{CAMERA.map(control)}</div>
        <CameraMore
          shot={around}
          forecast={answer?.forecast}
          refusal={refusal}
          onChange={change}
          onFilter={filter}
          onDrag={drag}
          onGroups={groups}
        />
      </section>
      <section className={classes.block} aria-label="Lights">
        <LightsHead
          shot={around}
          seen={answer?.forecast.lights}
          refusal={refusal}
          chosen={Math.min(light, around.lights.length - 1)}
          solo={solo}
          onChoose={choose}
          onSolo={alone}
          onChange={change}
          onMoved={moved}
          onTake={other}
        />
        {FLASH.filter((id) => strips.has(id)).map(control)}
        {shot.lights[light]?.on_camera && <p className={classes.mounted}>On the camera, as far as that is</p>}
      </section>
      <AmbientPanel
        shot={around}
        forecast={answer?.forecast}
        refusal={refusal}
        guessed={answer?.findings.some(({ id }) => id === 'light-guessed') ?? false}
        onChange={other}
        onShot={change}
      />
    </div>
  )
}

type ControlProps = {
  strip: Strip
  index: number
  error: string | undefined
  locked: boolean | undefined
  followed: string | undefined
  onSet: (strip: Strip, index: number) => void
  onLock: (strip: Held) => void
  understand: (strip: Strip, text: string) => Promise<{ index: number; label: string }>
}

/** One strip: drawn again when it is turned itself. */
const Control = memo(function Control({ strip, onSet, onLock, understand, ...rest }: ControlProps) {
  const { id } = strip
  return (
    <NotchedStrip
      {...rest}
      strip={strip}
      shortcut={id in COMMANDS ? keyOf(id as CommandId) : ''}
      understand={(text) => understand(strip, text)}
      onLock={LOCKABLE.has(id) ? () => onLock(id as Held) : undefined}
      onChange={(index) => onSet(strip, index)}
    />
  )
})

type HeadProps = Pick<Props, 'shot' | 'refusal' | 'held' | 'onChange' | 'onMoved'> & {
  onLock: (held: Held) => void
}

/** Which camera, and what is held. */
const CameraHead = memo(function CameraHead({ shot, refusal, held, onChange, onLock, onMoved }: HeadProps) {
  return (
    <h2 className={classes.title}>
      Camera <CameraChoice shot={shot} refusal={refusal} onChange={onChange} onMoved={onMoved} />
      <HoldChips shot={shot} answer={held} onToggle={onLock} />
    </h2>
  )
})

type MoreProps = Pick<Props, 'shot' | 'refusal' | 'onChange' | 'onDrag' | 'onGroups'> & {
  forecast: BenchAnswer['forecast'] | undefined
  /** What stands before the lens was changed. */
  onFilter: (shot: Shot) => void
}

/** What is turned more rarely. */
const CameraMore = memo(function CameraMore(props: MoreProps) {
  const { shot, forecast, refusal, onChange, onFilter, onDrag, onGroups } = props
  return (
    <div className={classes.more}>
      <More side="right" word={movementWord(shot)} choose="movement">
        <CameraMoves shot={shot} forecast={forecast} refusal={refusal} onChange={onChange} />
      </More>
      <More side="right" word={lensWord(shot)} choose="before-lens">
        <BeforeLens shot={shot} forecast={forecast} refusal={refusal} onChange={onFilter} />
      </More>
      <More side="right" word="Tones" choose="tones" width={560}>
        <Tones shot={shot} onChange={onChange} />
      </More>
      <More side="right" word={burstWord(shot)} choose="burst" width={620}>
        <Burst shot={shot} forecast={forecast} refusal={refusal} onChange={onChange} />
      </More>
      <UnstyledButton className={classes.moreButton} data-choose="groups" onClick={onGroups}>
        Groups <Key of="groups" />
      </UnstyledButton>
      <UnstyledButton className={classes.moreButton} data-choose="drag" onClick={onDrag}>
        Drag the shutter <Key of="drag" />
      </UnstyledButton>
    </div>
  )
})
