import { scaleLinear } from 'd3-scale'
import { useElementSize } from '@mantine/hooks'
import { memo, useRef, useState, type PointerEvent } from 'react'
import type { Forecast } from '../api/client'
import { signedStops } from '../words/figures'
import { ASTRAY, AXIS, FOOT, HEIGHT, labelled, ROW, spread, TOP, WIDTH, type Label } from './labels'
import { OneRung, Together } from './Rungs'
import classes from './Ladder.module.css'

type Props = {
  ladder: Forecast['ladder'] | undefined
  subject: Forecast['subject'] | undefined
  onTarget: (pointer: string, stops: number | undefined) => void
}

/** Everything in the picture on one scale of stops. A rung with a target is dragged to set it. */
export const Ladder = memo(function Ladder({ ladder, subject, onTarget }: Props) {
  const svg = useRef<SVGSVGElement>(null)
  const { ref, width, height } = useElementSize()
  const [unfolded, setUnfolded] = useState(false)
  if (!ladder) return <section className={classes.ladder} aria-label="Ladder" aria-busy="true" />
  // As high as there is room for, at the size of its letters.
  const tall = width > 0 ? (height / width) * WIDTH : HEIGHT
  const bottom = tall - FOOT
  const y = scaleLinear([ladder.top_stops, ladder.bottom_stops], [TOP, bottom]).clamp(true)
  const rungs = ladder.rungs.filter((rung) => rung.stops !== null)
  const dark = ladder.rungs.filter((rung) => rung.stops === null)
  // Many rungs stand closer.
  const places = (of: Label[]) => {
    const wanted = of.map((label) => y(label.rungs[0]!.stops!))
    const row = Math.min(ROW, (bottom - TOP) / of.length)
    const at = spread(wanted, row, bottom)
    return {
      at,
      pill: Math.min(22, row - 1),
      astray: Math.max(0, ...at.map((place, k) => Math.abs(place - wanted[k]!))),
    }
  }
  const ways = labelled(rungs)
  const fits = (way: Label[], index: number) => places(way).astray <= (ASTRAY[index] ?? Infinity)
  const shown = unfolded ? ways[0]! : ways.find(fits)!
  const { at: labels, pill } = places(shown)
  const ticks = y.ticks(12)

  const stopsAt = (event: PointerEvent) => {
    const box = svg.current!.getBoundingClientRect()
    return y.invert(((event.clientY - box.top) / box.height) * tall)
  }

  return (
    <section className={classes.ladder} aria-label="Ladder">
      <h2 className={classes.title}>
        Ladder{' '}
        <small>
          {subject?.working_aperture ? `reads ${subject.working_aperture}` : 'stops'}
          {subject?.lighting_ratio && ` · ${subject.lighting_ratio}`}
        </small>
      </h2>
      <div ref={ref} className={classes.scale}>
        <svg ref={svg} viewBox={`0 0 ${WIDTH} ${tall}`}>
          <rect x={AXIS - 6} y={TOP} width="12" height={bottom - TOP} rx="6" className={classes.rail} />
          <rect
            x={AXIS - 6}
            y={TOP}
            width="12"
            height={y(ladder.clip_stops) - TOP}
            rx="6"
            className={classes.white}
          />
          <rect
            x={AXIS - 6}
            y={y(ladder.black_stops)}
            width="12"
            height={bottom - y(ladder.black_stops)}
            rx="6"
            className={classes.black}
          />
          {ticks.map((tick) => (
            <g
              key={tick}
              transform={`translate(0 ${y(tick)})`}
              className={classes.tick}
              data-zero={tick === 0 || undefined}
            >
              <text x={AXIS - 16} dy="0.35em" textAnchor="end">
                {signedStops(tick, 0)}
              </text>
              <line x1={AXIS - 11} x2={AXIS - 7} />
            </g>
          ))}
          <text x={WIDTH} y={TOP - 3} textAnchor="end" className={classes.note}>
            white clips
          </text>
          <text x={WIDTH} y={bottom + 5} textAnchor="end" className={classes.note}>
            {dark.length > 0 ? `no light: ${dark.map((rung) => rung.label).join(', ')}` : 'reads as black'}
          </text>
          {shown.map(({ rungs: [rung, ...more] }, index) =>
            more.length === 0 ? (
              <OneRung
                key={rung!.id}
                rung={rung!}
                y={y}
                at={labels[index]!}
                pill={pill}
                stopsAt={stopsAt}
                onTarget={onTarget}
              />
            ) : (
              <Together
                key={rung!.id}
                rungs={[rung!, ...more]}
                y={y}
                at={labels[index]!}
                pill={pill}
                onUnfold={() => setUnfolded(true)}
              />
            ),
          )}
        </svg>
      </div>
    </section>
  )
})
