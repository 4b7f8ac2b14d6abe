import { UnstyledButton } from '@mantine/core'
import { useMediaQuery } from '@mantine/hooks'
import { useCallback, useEffect, useRef, useState } from 'react'
import type { Strip } from '../api/client'
import { Lock } from '../marks/Lock'
import { MovesMarks } from '../marks/MovesMarks'
import { TypedFigure, type Understood } from './TypedFigure'
import classes from './NotchedStrip.module.css'

/** Width of a notch while dragging, in CSS pixels. */
const DRAG_PER_NOTCH = 30
/** Wheel travel of one notch: a mouse sends about 100 a click, a trackpad many small ones. */
const WHEEL_PER_NOTCH = 60
/** Neighbours on each side, and on a screen that has room. */
const NEIGHBOURS = 1
const MORE_NEIGHBOURS = 2
const ROOM = '(min-width: 1700px)'

type Props = {
  strip: Strip
  /** Position set; may be ahead of the strip's own while an answer is on its way. */
  index: number
  /** The key that focuses it. */
  shortcut: string
  error?: string | undefined
  /** Whether it is locked; not given where it cannot be. */
  locked?: boolean | undefined
  /** What it did to hold the look, in a word or two. */
  followed?: string | undefined
  onChange: (index: number) => void
  onLock?: (() => void) | undefined
  /** The notch that a typed figure asks for. */
  understand: (text: string) => Promise<Understood>
}

/** What begins a figure; a letter is a command. */
const BEGINS = /^[\d+\-−]$/
/** Where figures are spelled with the letter of their own key, that letter begins one: ND 0.9, ISO 400. */
const SPELLED: Record<string, string> = { filter: 'n', iso: 'i' }

/** A control that shows its neighbours and its ends, stepped by arrow keys, wheel or drag. */
export function NotchedStrip(props: Props) {
  const { strip, index, shortcut, error, locked, followed, onChange, onLock, understand } = props
  const [typing, setTyping] = useState<string>()
  const body = useRef<HTMLDivElement>(null)
  const drag = useRef<{ x: number; index: number } | undefined>(undefined)
  const wheel = useRef(0)
  const last = strip.notches.length - 1

  const to = useCallback(
    (wanted: number) => {
      const next = Math.max(0, Math.min(last, wanted))
      if (next !== index) onChange(next)
    },
    [index, last, onChange],
  )

  // React listens to wheels passively; a control that is turned must not scroll what is around it.
  useEffect(() => {
    const element = body.current
    if (!element) return
    const turn = (event: WheelEvent) => {
      event.preventDefault()
      wheel.current += Math.abs(event.deltaY) >= Math.abs(event.deltaX) ? -event.deltaY : event.deltaX
      const notches = Math.trunc(wheel.current / WHEEL_PER_NOTCH)
      if (notches !== 0) {
        wheel.current -= notches * WHEEL_PER_NOTCH
        to(index + notches)
      }
    }
    element.addEventListener('wheel', turn, { passive: false })
    return () => element.removeEventListener('wheel', turn)
  }, [index, to])

  const keys: Record<string, number> = {
    ArrowRight: index + 1,
    ArrowUp: index + 1,
    ArrowLeft: index - 1,
    ArrowDown: index - 1,
    PageUp: index + 3,
    PageDown: index - 3,
    Home: 0,
    End: last,
  }

  const value = strip.between && index === strip.index ? strip.between : (strip.notches[index]?.label ?? '')
  const wide = useMediaQuery(ROOM)
  const beside = wide ? MORE_NEIGHBOURS : NEIGHBOURS
  const offsets = Array.from({ length: 2 * beside + 1 }, (_, k) => k - beside)
  return (
    <div className={classes.row} data-error={error ? true : undefined}>
      <StripLabel strip={strip} shortcut={shortcut} locked={locked ?? false} onLock={onLock} />
      <div
        ref={body}
        id={`strip-${strip.id}`}
        className={classes.strip}
        data-locked={locked || undefined}
        data-wide={wide || undefined}
        role={typing === undefined ? 'slider' : 'group'}
        tabIndex={0}
        aria-labelledby={`label-${strip.id}`}
        aria-valuemin={0}
        aria-valuemax={last}
        aria-valuenow={index}
        aria-valuetext={value}
        aria-invalid={error ? true : undefined}
        aria-describedby={error ? `error-${strip.id}` : undefined}
        onKeyDown={(event) => {
          if (event.target !== event.currentTarget) return
          if (event.key === ' ' && onLock) {
            event.preventDefault()
            return onLock()
          }
          const plain = !event.ctrlKey && !event.metaKey && !event.altKey
          const begins = BEGINS.test(event.key) || event.key.toLowerCase() === SPELLED[strip.id]
          if (plain && (begins || event.key === 'Enter')) {
            event.preventDefault()
            return setTyping(event.key === 'Enter' ? '' : event.key)
          }
          const wanted = keys[event.key]
          if (wanted === undefined || event.ctrlKey || event.metaKey || event.altKey) return
          event.preventDefault()
          to(wanted)
        }}
        onPointerDown={(event) => {
          if (typing !== undefined) return
          event.currentTarget.setPointerCapture(event.pointerId)
          drag.current = { x: event.clientX, index }
        }}
        onPointerMove={(event) => {
          if (drag.current)
            to(drag.current.index - Math.round((event.clientX - drag.current.x) / DRAG_PER_NOTCH))
        }}
        onPointerUp={(event) => {
          const start = drag.current
          drag.current = undefined
          // A press without a drag goes to the neighbour that was pressed.
          if (start && Math.abs(event.clientX - start.x) < 4) {
            const pressed = (event.target as HTMLElement).closest<HTMLElement>('[data-offset]')
            if (pressed) to(index + Number(pressed.dataset.offset))
          }
        }}
        onPointerCancel={() => (drag.current = undefined)}
      >
        {typing !== undefined && (
          <TypedFigure
            label={strip.label}
            begun={typing}
            understand={understand}
            onTake={(understood) => {
              // Between two notches the nearest of them is a move, too.
              if (understood.index !== index || strip.between) onChange(understood.index)
              setTyping(undefined)
              body.current?.focus()
            }}
            onLeave={() => setTyping(undefined)}
            onClose={() => {
              setTyping(undefined)
              body.current?.focus()
            }}
          />
        )}
        {typing === undefined &&
          offsets.map((offset) => {
            const notch = strip.notches[index + offset]
            const end = index + offset === -1 || index + offset === last + 1
            return (
              <span
                key={offset}
                className={offset === 0 ? classes.value : classes.notch}
                data-offset={offset}
              >
                {offset === 0 ? (
                  value
                ) : end ? (
                  <i className={classes.end} title="End of the range" />
                ) : (
                  notch?.label
                )}
              </span>
            )
          })}
      </div>
      {followed ? (
        <span className={classes.followed} data-followed={strip.id}>
          {followed}
        </span>
      ) : (
        <MovesMarks moves={strip.moves} />
      )}
      {error && (
        <span className={classes.error} id={`error-${strip.id}`} role="alert">
          {error}
        </span>
      )}
    </div>
  )
}

type LabelProps = { strip: Strip; shortcut: string; locked: boolean; onLock: (() => void) | undefined }

/** The name of a control; pressed, it is locked. */
function StripLabel({ strip, shortcut, locked, onLock }: LabelProps) {
  const name = (
    <>
      <span id={`label-${strip.id}`}>{strip.label}</span>{' '}
      <span className={classes.sign}>
        <kbd className={classes.key}>{shortcut}</kbd>
        {onLock && <Lock closed={locked} size={13} />}
      </span>
    </>
  )
  if (!onLock) return <span className={classes.label}>{name}</span>
  return (
    <UnstyledButton
      className={classes.label}
      aria-pressed={locked}
      aria-label={`${strip.label}${shortcut ? ` ${shortcut}` : ''}, lock`}
      title={locked ? 'Locked · Space lets it follow' : 'Space locks it'}
      tabIndex={-1}
      data-lock={strip.id}
      onClick={onLock}
    >
      {name}
    </UnstyledButton>
  )
}
