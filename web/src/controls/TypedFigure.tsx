import { useEffect, useRef, useState } from 'react'
import classes from './NotchedStrip.module.css'

/** What a typed figure was understood to be. */
export type Understood = { index: number; label: string }

/** A pause in typing after which it is worth asking, in ms. */
const PAUSE = 80

type Props = {
  /** The name of the control. */
  label: string
  /** The key that began it. */
  begun: string
  /** What the program makes of it; a sentence in an error where it is no figure. */
  understand: (text: string) => Promise<Understood>
  onTake: (understood: Understood) => void
  /** Escape: back to the control. */
  onClose: () => void
  /** Somewhere else was pressed. */
  onLeave: () => void
}

/** A figure typed into a control as it is said: what is understood stands under it, and nothing is taken before Enter. */
export function TypedFigure({ label, begun, understand, onTake, onClose, onLeave }: Props) {
  const [text, setText] = useState(begun)
  const [heard, setHeard] = useState<{ words: string; wrong: boolean }>()
  const latest = useRef(understand)
  useEffect(() => {
    latest.current = understand
  })
  useEffect(() => {
    if (text.trim() === '') return setHeard(undefined)
    let stale = false
    const hear = (words: string, wrong: boolean) => !stale && setHeard({ words, wrong })
    const timer = setTimeout(() => {
      latest
        .current(text)
        .then(({ label }) => hear(label, false))
        .catch((failure: Error) => hear(failure.message, true))
    }, PAUSE)
    return () => {
      stale = true
      clearTimeout(timer)
    }
  }, [text])

  const take = () =>
    understand(text)
      .then(onTake)
      .catch((failure: Error) => setHeard({ words: failure.message, wrong: true }))
  return (
    <>
      <input
        className={classes.typed}
        aria-label={`${label}, as it is said`}
        aria-invalid={heard?.wrong || undefined}
        aria-describedby="typed-understood"
        autoFocus
        autoComplete="off"
        spellCheck={false}
        value={text}
        data-typed
        onChange={(event) => setText(event.currentTarget.value)}
        onBlur={onLeave}
        onKeyDown={(event) => {
          event.stopPropagation()
          if (event.key === 'Enter') {
            event.preventDefault()
            void take()
          }
          if (event.key === 'Escape') onClose()
        }}
      />
      <span
        id="typed-understood"
        className={classes.understood}
        data-wrong={heard?.wrong || undefined}
        role="status"
      >
        {heard ? (
          heard.wrong ? (
            heard.words
          ) : (
            <>
              <b className="mono">{heard.words}</b> · Enter takes it
            </>
          )
        ) : (
          'A figure, as it is said'
        )}
      </span>
    </>
  )
}
