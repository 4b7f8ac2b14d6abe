import { Button, CloseButton } from '@mantine/core'
import type { Problem } from '../api/client'
import { useGoes } from '../shell/useGoes'
import classes from './Notices.module.css'

/** What was done or refused, and what can be done about it. */
export type Notice = {
  text: string
  rows?: NonNullable<Problem['rows']>
  action?: { words: string; run: () => void } | undefined
}

type Props = { notice: Notice | undefined; unreadable: string[]; onClose: () => void }

export function Notices({ notice, unreadable, onClose }: Props) {
  useGoes(notice && !notice.action && !notice.rows && notice, onClose)
  return (
    <>
      {unreadable.map((sentence) => (
        <p key={sentence} className={classes.notice} role="alert">
          {sentence}. It is still in the file.
        </p>
      ))}
      {notice && (
        <div className={classes.notice} role="status">
          <div>
            {notice.text}
            {notice.rows && notice.rows.length > 1 && (
              <ul className={classes.rows}>
                {notice.rows.map((row) => (
                  <li key={`${row.line}-${row.column}-${row.sentence}`}>
                    Line {row.line}, column {row.column} ({row.heading}): {row.sentence}
                  </li>
                ))}
              </ul>
            )}
          </div>
          {notice.action && (
            <Button
              size="compact-sm"
              radius="xl"
              variant="default"
              onClick={() => {
                notice.action?.run()
                onClose()
              }}
            >
              {notice.action.words}
            </Button>
          )}
          <CloseButton size="sm" aria-label="Close this notice" onClick={onClose} />
        </div>
      )}
    </>
  )
}
