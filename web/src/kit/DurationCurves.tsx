import { useElementSize } from '@mantine/hooks'
import { scaleLog } from 'd3-scale'
import { useMemo, type KeyboardEvent, type PointerEvent } from 'react'
import type { Guide } from '../api/client'
import { nearest, type Lane } from './lanes'
import { BOTTOM, HEIGHT, LEFT, StandingCurves, TOP } from './StandingCurves'
import classes from './DurationCurves.module.css'

type Props = {
  lanes: Lane[]
  guides: Guide[]
  /** Power of the cursor. */
  power: number
  onPower: (power: number) => void
}

const LABELS = 150

/** Duration curves with a cursor that steps along the dial of the unit in hand. */
export function DurationCurves({ lanes, guides, power, onPower }: Props) {
  const { ref, width } = useElementSize()
  const WIDTH = Math.max(420, width)
  const RIGHT = WIDTH - LABELS
  const first = lanes[0]

  const scales = useMemo(() => {
    const pieces = lanes.flatMap(({ sheet }) => [...sheet.curve, ...(sheet.entered_curve ?? [])])
    const times = [
      ...pieces.flatMap((piece) => piece.t01_s),
      ...(first?.sheet.curve.flatMap((piece) => piece.t05_s) ?? []),
      ...guides.map((guide) => guide.time_s),
    ]
    const powers = pieces.flatMap((piece) => piece.power)
    const low = Math.max(Math.min(...times), 2e-6)
    const high = Math.min(Math.max(...times), 1)
    return {
      x: scaleLog([Math.min(...powers, 0.5) * 0.95, 1.06], [LEFT, RIGHT]).clamp(true),
      y: scaleLog([low / 1.25, high * 1.25], [BOTTOM, TOP]).clamp(true),
    }
  }, [lanes, first, guides, RIGHT])
  if (!first) return <div className={classes.box} />
  const { x, y } = scales

  const dial = first.sheet.powers
  const at = nearest(dial, power)
  const moved = (event: PointerEvent<SVGSVGElement>) => {
    if (!(event.buttons & 1)) return
    const box = event.currentTarget.getBoundingClientRect()
    onPower(nearest(dial, x.invert(((event.clientX - box.left) / box.width) * WIDTH)).power)
  }
  const keyed = (event: KeyboardEvent) => {
    const index = dial.indexOf(at)
    const to = {
      ArrowLeft: index + 1,
      ArrowDown: index + 1,
      ArrowRight: index - 1,
      ArrowUp: index - 1,
      PageDown: index + 3,
      PageUp: index - 3,
      Home: dial.length - 1,
      End: 0,
    }[event.key]
    if (to === undefined) return
    event.preventDefault()
    onPower(dial[Math.max(0, Math.min(dial.length - 1, to))]!.power)
  }
  return (
    <div ref={ref} className={classes.box}>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        className={classes.figure}
        role="slider"
        tabIndex={0}
        aria-label="Power on the duration curves"
        aria-valuemin={0}
        aria-valuemax={dial.length - 1}
        aria-valuenow={dial.length - 1 - dial.indexOf(at)}
        aria-valuetext={`${at.power_label}, t0.1 ${at.t01_label}`}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId)
          moved(event)
        }}
        onPointerMove={moved}
        onKeyDown={keyed}
      >
        <StandingCurves lanes={lanes} guides={guides} scales={scales} right={RIGHT} />
        <g className={classes.cursor} transform={`translate(${x(at.power)} 0)`}>
          <line y1={TOP} y2={BOTTOM} />
          <circle cy={y(at.t01_s)} r="5" />
          <rect x="-26" y={BOTTOM + 4} width="52" height="20" rx="10" />
          <text y={BOTTOM + 18} textAnchor="middle">
            {at.power_label}
          </text>
        </g>
      </svg>
    </div>
  )
}
