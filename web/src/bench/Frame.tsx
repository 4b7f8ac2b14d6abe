import { SegmentedControl } from '@mantine/core'
import { Key } from '../commands/Key'
import { keyOf } from '../commands/list'
import { useCommands } from '../commands/useCommands'
import { useElementSize } from '@mantine/hooks'
import { memo, useEffect, useRef, useState, type PointerEvent } from 'react'
import {
  WHOLE,
  type Crop,
  type Forecast,
  type LanesAnswer,
  type Layers,
  type StageAnswer,
} from '../api/client'
import { NowMarks } from './movement/NowMarks'
import { leastAt, type Spot } from './stage/staged'
import { StageMarks } from './stage/StageMarks'
import type { BenchState } from './useBench'
import { length } from '../words/figures'
import { isImperial } from '../words/preferred'
import classes from './Frame.module.css'

type Props = Pick<BenchState, 'frames' | 'view' | 'look'> & {
  exposure: Forecast['exposure'] | undefined
  depth: Forecast['depth'] | undefined
  pixelsWide: number
  /** Height against width. */
  shape: number
  /** While people are set up: who is in hand, and how they are moved. */
  staging:
    | {
        staged: StageAnswer
        who: number
        onWho: (who: number) => void
        /** Names of the parts, in the shot's order. */
        parts: readonly string[]
        /** The part of the answer that was pressed on. */
        part: number | undefined
        onPart: (part: number | undefined) => void
        onMove: (to: { right_m: number; away_m: number }) => void
      }
    | undefined
  /** Where everything is at the moment that is looked at, while one is. */
  lanes: LanesAnswer | undefined
  onStage: () => void
  /** A place that was pressed on, in shares of the frame. */
  onPress: (at: Spot) => void
  /** The light that is alone in the picture, by its label. */
  alone: string | undefined
  comparing: boolean
}

/** Share of the frame's width that shows one camera pixel on one of the picture's, on a frame of this many pixels. */
const atPixels = (pixelsWide: number, width: number): number => Math.min(1, width / pixelsWide)

/** The part that was pressed on, with its name. */
const partInHand = ({ staged, parts, part }: NonNullable<Props['staging']>) => {
  const found = part === undefined ? undefined : staged.parts[part]
  return found && { at: found.at, name: parts[found.part] ?? '' }
}

/** A hand that moves sideways wavers by less than this share of the frame's height. */
const MEANT = 0.04

/** How deep it is sharp. */
const sharp = ({ total_m }: Forecast['depth']): string =>
  total_m == null
    ? 'sharp to ∞'
    : isImperial()
      ? `${length(total_m)} sharp`
      : total_m < 10
        ? `${Math.round(total_m * 100)} cm sharp`
        : `${Math.round(total_m)} m sharp`

/** The picture that has not been taken yet. */
export const Frame = memo(function Frame({
  frames,
  view,
  look,
  exposure,
  depth,
  alone,
  pixelsWide,
  shape,
  staging,
  lanes,
  onStage,
  onPress,
  comparing,
}: Props) {
  const canvas = useRef<HTMLCanvasElement>(null)
  const drag = useRef<{ x: number; y: number; crop: Crop } | undefined>(undefined)
  const [centre, setCentre] = useState({ x: 0.5, y: 0.32 })
  const loupe = view.crop.size < 1

  // Drawn at the size it is shown: more pixels would only take longer, fewer would be soft.
  const { ref: box, width, height } = useElementSize()
  const shown = Math.min(width, height / shape)
  const wanted = Math.min(1920, Math.round(shown * window.devicePixelRatio))
  useEffect(() => {
    if (wanted > 0 && wanted !== view.width) look({ width: wanted })
  }, [wanted, view.width, look])

  useEffect(() => {
    let last: ImageData | undefined
    const draw = () => {
      const element = canvas.current
      const shown = comparing ? (frames.before ?? frames.current) : frames.current
      if (!element || !shown) return
      element.setAttribute('aria-busy', String(frames.awaited))
      if (shown === last) return
      last = shown
      if (element.width !== shown.width || element.height !== shown.height) {
        element.width = shown.width
        element.height = shown.height
      }
      element.getContext('2d', { alpha: false })?.putImageData(shown, 0, 0)
      element.dataset.ready = 'true'
      // For measuring how long a change takes to the screen.
      requestAnimationFrame(() => (element.dataset.shown = String(Number(element.dataset.shown ?? 0) + 1)))
    }
    draw()
    return frames.watch(draw)
  }, [frames, comparing])

  const size = atPixels(pixelsWide, view.width)
  const around = (x: number, y: number): Crop => {
    const clamp = (value: number) => Math.max(0, Math.min(1 - size, value - size / 2))
    return { left: clamp(x), top: clamp(y), size }
  }
  const toggle = () => look({ crop: loupe ? WHOLE : around(centre.x, centre.y) })
  useCommands({ loupe: toggle })
  const place = (event: PointerEvent<HTMLCanvasElement>) => {
    const box = event.currentTarget.getBoundingClientRect()
    return { x: (event.clientX - box.left) / box.width, y: (event.clientY - box.top) / box.height }
  }

  // Who is pressed on is in hand: of several, the one that takes least of the frame.
  const inHand = useRef<
    { right_m: number; away_m: number; frame_width_m: number; frame_deep_m: number } | undefined
  >(undefined)
  const takeInHand = (at: { x: number; y: number }) => {
    const { staged, onWho, onPart } = staging!
    onPart(leastAt(staged.parts, at))
    const index = leastAt(staged.people, at)
    const person = index === undefined ? undefined : staged.composition.people?.[index]
    if (index === undefined || !person) return
    onWho(index)
    const { frame_width_m, frame_deep_m } = staged.people[index]!
    inHand.current = {
      right_m: person.right_m ?? 0,
      away_m: person.away_m ?? 0,
      frame_width_m,
      frame_deep_m,
    }
  }

  return (
    <section ref={box} className={classes.frame} aria-label="Frame">
      <div className={classes.picture} style={{ width: shown, height: shown * shape }}>
        <canvas
          ref={canvas}
          className={classes.canvas}
          id="frame"
          role="img"
          aria-label={
            exposure
              ? `Simulated frame at ${exposure.shutter_label}, f/${exposure.aperture_label}, ISO ${exposure.iso_label}`
              : 'Simulated frame, being drawn'
          }
          data-loupe={loupe || undefined}
          onPointerDown={(event) => {
            event.currentTarget.setPointerCapture(event.pointerId)
            drag.current = { ...place(event), crop: view.crop }
            if (staging) takeInHand(place(event))
          }}
          onPointerMove={(event) => {
            const start = drag.current
            if (start && staging && inHand.current) {
              const { right_m, away_m, frame_width_m, frame_deep_m } = inHand.current
              const at = place(event)
              // To the nearest five centimetres; up the frame is away over the floor, once it is meant.
              const steps = (metres: number) => Math.round(metres * 20) / 20
              const up = start.y - at.y
              const meant = Math.sign(up) * Math.max(0, Math.abs(up) - MEANT)
              const { nearest_m, farthest_m } = staging.staged
              staging.onMove({
                right_m: steps(right_m + (at.x - start.x) * frame_width_m),
                away_m: Math.min(farthest_m, Math.max(nearest_m, steps(away_m + meant * frame_deep_m))),
              })
              return
            }
            if (!start || !loupe) return
            const at = place(event)
            const keep = (value: number) => Math.max(0, Math.min(1 - size, value))
            look({
              crop: {
                left: keep(start.crop.left - (at.x - start.x) * size),
                top: keep(start.crop.top - (at.y - start.y) * size),
                size,
              },
            })
          }}
          onPointerUp={(event) => {
            const start = drag.current
            drag.current = undefined
            const at = place(event)
            inHand.current = undefined
            if (staging) return
            if (!start || Math.hypot(at.x - start.x, at.y - start.y) > 0.01 || loupe) return
            setCentre(at)
            onPress(at)
            look({ crop: around(at.x, at.y) })
          }}
        />
        {lanes && <NowMarks lanes={lanes} />}
        {staging && <StageMarks staged={staging.staged} who={staging.who} part={partInHand(staging)} />}
      </div>
      {!exposure && <p className={classes.waiting}>Drawing the frame…</p>}
      <div className={classes.tools}>
        <SegmentedControl
          size="xs"
          radius="xl"
          aria-label="Light shown"
          value={view.layers}
          onChange={(layers) => look({ layers: layers as Layers })}
          data={[
            { value: 'both', label: `Both ${keyOf('both')}` },
            { value: 'flash', label: `Flash ${keyOf('flash')}` },
            { value: 'ambient', label: `Ambient ${keyOf('ambient')}` },
          ]}
        />
        <button type="button" className={classes.tool} aria-pressed={loupe} onClick={toggle}>
          Loupe <Key of="loupe" />
        </button>
        <button
          type="button"
          className={classes.tool}
          data-choose="stage"
          aria-pressed={staging !== undefined}
          onClick={onStage}
        >
          Who and where <Key of="stage" />
        </button>
        {alone && (
          <span className={classes.alone} data-testid="alone">
            {alone} alone
          </span>
        )}
        <span className={classes.spacer} />
        {comparing ? (
          <span className={classes.exposure}>
            {frames.before ? 'Before the last change' : 'Nothing changed yet'}
          </span>
        ) : (
          exposure && (
            <span className={classes.exposure} data-testid="exposure">
              {exposure.shutter_label} · f/{exposure.aperture_label} · ISO {exposure.iso_label}
              {exposure.filter_stops > 0 && ` · −${exposure.filter_stops} stops`}
              {depth && ` · ${sharp(depth)}`}
              {loupe && ' · 1:1'}
            </span>
          )
        )}
      </div>
    </section>
  )
})
