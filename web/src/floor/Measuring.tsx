import classes from './Floor.module.css'

export type Place = [number, number, number]
type Props = {
  ends: Place[]
  says: string | null | undefined
  x: (metres: number) => number
  y: (metres: number) => number
}

/** The tape between two places, with what it reads. */
export function Measuring({ ends, says, x, y }: Props) {
  const [from, to] = ends
  if (!from) return null
  return (
    <g className={classes.tape} data-testid="tape">
      <circle cx={x(from[0])} cy={y(from[1])} r={4} />
      {to && (
        <>
          <line x1={x(from[0])} y1={y(from[1])} x2={x(to[0])} y2={y(to[1])} />
          <circle cx={x(to[0])} cy={y(to[1])} r={4} />
          <text x={(x(from[0]) + x(to[0])) / 2 + 8} y={(y(from[1]) + y(to[1])) / 2 - 6}>
            {says}
          </text>
        </>
      )}
    </g>
  )
}
