import classes from './LaneMark.module.css'

const SHAPES = [
  'M-5 0a5 5 0 1 0 10 0a5 5 0 1 0 -10 0',
  'M-5 -4.5h10v9h-10z',
  'M0 -6 6 5H-6z',
  'M0 -6.5 6 0 0 6.5 -6 0z',
]

/** The shape that stands for a unit in a comparison, the same in every figure; within an svg. */
export function LaneMark({ lane, x = 0, y = 0 }: { lane: number; x?: number; y?: number }) {
  return (
    <path
      className={classes.mark}
      data-lane={lane}
      d={SHAPES[lane % SHAPES.length]}
      transform={`translate(${x} ${y})`}
    />
  )
}

/** The same beside a word. */
export function LaneSign({ lane }: { lane: number }) {
  return (
    <svg viewBox="-8 -8 16 16" width="14" height="14" aria-hidden="true">
      <LaneMark lane={lane} />
    </svg>
  )
}
