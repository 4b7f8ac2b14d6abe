import type { StageAnswer } from '../../api/client'
import classes from './StageMarks.module.css'

type Box = { left: number; top: number; right: number; bottom: number }
type Props = {
  staged: StageAnswer
  who: number
  /** The part that was pressed on, and its name. */
  part: { at: Box; name: string } | undefined
}

const placed = ({ left, top, right, bottom }: Box) => ({
  left: `${left * 100}%`,
  top: `${top * 100}%`,
  width: `${(right - left) * 100}%`,
  height: `${(bottom - top) * 100}%`,
})

/** Who is in hand, and which part was pressed on: corners around them, over the picture. */
export function StageMarks({ staged, who, part }: Props) {
  const at = staged.people[who]?.at
  return (
    <>
      {at && <span className={classes.corners} data-testid="in-hand" style={placed(at)} />}
      {part && (
        <span className={classes.part} data-testid="part-in-hand" style={placed(part.at)}>
          <span className={classes.name}>{part.name}</span>
        </span>
      )}
    </>
  )
}
