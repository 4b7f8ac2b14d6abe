import { memo } from 'react'
import type { ScaleLinear } from 'd3-scale'
import classes from './Floor.module.css'

type Props = {
  x: ScaleLinear<number, number>
  y: ScaleLinear<number, number>
  width: number
  height: number
}

/** Lines on the floor, as far apart across as away, over the whole sheet. */
export const Squares = memo(function Squares({ x, y, width, height }: Props) {
  const ticks = x.ticks(12)
  const step = (ticks[1] ?? 1) - (ticks[0] ?? 0)
  const lines = (from: number, to: number) => {
    const first = Math.ceil(Math.min(from, to) / step)
    const last = Math.floor(Math.max(from, to) / step)
    return Array.from({ length: Math.max(0, last - first + 1) }, (_, index) => (first + index) * step)
  }
  if (width === 0 || height === 0) return null
  return (
    <g className={classes.grid}>
      {lines(x.invert(0), x.invert(width)).map((at) => (
        <line key={`x${at}`} x1={x(at)} x2={x(at)} y1={0} y2={height} />
      ))}
      {lines(y.invert(0), y.invert(height)).map((at) => (
        <line key={`y${at}`} x1={0} x2={width} y1={y(at)} y2={y(at)} />
      ))}
    </g>
  )
})
