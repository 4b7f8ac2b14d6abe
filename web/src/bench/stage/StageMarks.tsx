import type { StageAnswer } from '../../api/client'
import classes from './StageMarks.module.css'

type Props = { staged: StageAnswer; who: number }

/** Who is in hand: corners around the body, over the picture. */
export function StageMarks({ staged, who }: Props) {
  const at = staged.people[who]?.at
  if (!at) return null
  return (
    <span
      className={classes.corners}
      data-testid="in-hand"
      style={{
        left: `${at.left * 100}%`,
        top: `${at.top * 100}%`,
        width: `${(at.right - at.left) * 100}%`,
        height: `${(at.bottom - at.top) * 100}%`,
      }}
    />
  )
}
