import { scaleLinear, scaleLog } from 'd3-scale'
import { figure } from './words'
import classes from './StandsAmong.module.css'

type Props = {
  label: string
  suffix: string
  own: number | undefined
  others: { name: string; value: number }[]
}

const WIDTH = 560
const LEFT = 190
const RIGHT = WIDTH - 110

/** One figure on a line with the same figure of the others of its kind. */
export function StandsAmong({ label, suffix, own, others }: Props) {
  const values = [...others.map((other) => other.value), ...(own === undefined ? [] : [own])]
  const [low, high] = [Math.min(...values), Math.max(...values)]
  const even = low === high
  // Figures that lie decades apart stand on a log line.
  const scale =
    low > 0 && high / low > 20
      ? scaleLog([low, high], [LEFT, RIGHT])
      : scaleLinear([low, high], [LEFT, RIGHT])
  const x = (value: number) => (even ? (LEFT + RIGHT) / 2 : scale(value))
  return (
    <svg
      viewBox={`0 0 ${WIDTH} 24`}
      className={classes.figure}
      role="img"
      aria-label={`${label} ${own ?? 'not known'}${suffix}`}
    >
      <text x={LEFT - 16} y="16" textAnchor="end" className={classes.label}>
        {label}
      </text>
      <line x1={LEFT} x2={RIGHT} y1="12" y2="12" className={classes.line} />
      {others.map((other) => (
        <circle key={other.name} cx={x(other.value)} cy="12" r="3.5" className={classes.other}>
          <title>{`${other.name}: ${figure(other.value, 4)}${suffix}`}</title>
        </circle>
      ))}
      {own !== undefined && <circle cx={x(own)} cy="12" r="6.5" className={classes.own} />}
      <text x={WIDTH} y="16" textAnchor="end" className={classes.value}>
        {own === undefined ? 'not known' : `${figure(own, 4)}${suffix}`}
      </text>
    </svg>
  )
}
