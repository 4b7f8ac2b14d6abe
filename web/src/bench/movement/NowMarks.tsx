import type { LanesAnswer } from '../../api/client'
import classes from './Movement.module.css'

/** Where each part is at the moment that is looked at: a ring over the picture, which stands at the flash. */
export function NowMarks({ lanes }: { lanes: LanesAnswer }) {
  return (
    <>
      {lanes.lanes.map(({ name, now }) =>
        now.x_share == null || now.y_share == null ? null : (
          <span
            key={name}
            className={classes.now}
            data-now={name}
            style={{ left: `${now.x_share * 100}%`, top: `${now.y_share * 100}%` }}
          >
            <span>{name}</span>
          </span>
        ),
      )}
    </>
  )
}
