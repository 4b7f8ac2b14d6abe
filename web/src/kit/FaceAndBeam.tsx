import { scaleLinear } from 'd3-scale'
import classes from './FaceAndBeam.module.css'

type Props = { modifier: { face_radius_m: number; half_angle_deg?: number | null; grid_deg?: number | null } }

const WIDTH = 560
const HEIGHT = 212
/** Metres across the drawing. */
const REACH = 5.6
const PERSON_AT = 3
const PERSON_TALL = 1.75

/** The lit face and its beam, to scale, with a grown person three metres away. */
export function FaceAndBeam({ modifier }: Props) {
  const scale = scaleLinear([0, REACH], [0, WIDTH])
  const middle = HEIGHT / 2 - 10
  const face = scale(modifier.face_radius_m)
  const from = scale(0.6)
  const cone = (degrees: number) => {
    const length = WIDTH - from
    const rise = Math.tan((Math.min(degrees, 80) * Math.PI) / 180) * length
    return `M${from} ${middle - face} L${WIDTH} ${middle - face - rise} V${middle + face + rise} L${from} ${middle + face}Z`
  }
  const tall = scale(PERSON_TALL)
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className={classes.figure}
      role="img"
      aria-label="Face and beam to scale"
    >
      {modifier.half_angle_deg != null && <path d={cone(modifier.half_angle_deg)} className={classes.beam} />}
      {modifier.grid_deg != null && <path d={cone(modifier.grid_deg)} className={classes.grid} />}
      <rect x={from - 5} y={middle - face} width="6" height={2 * face} rx="3" className={classes.face} />
      <g transform={`translate(${scale(0.6 + PERSON_AT)} ${middle})`} className={classes.person}>
        <circle cy={-tall / 2 + 9} r="9" />
        <path
          d={`M0 ${-tall / 2 + 20}V${tall / 2 - 60}M0 ${tall / 2 - 62}L-12 ${tall / 2}M0 ${tall / 2 - 62}L12 ${tall / 2}`}
        />
      </g>
      <text x={WIDTH - 6} y={HEIGHT - 6} textAnchor="end" className={classes.note}>
        to scale; a person of {PERSON_TALL} m at {PERSON_AT} m
        {modifier.grid_deg != null ? '; inner: the grid' : ''}
      </text>
    </svg>
  )
}
