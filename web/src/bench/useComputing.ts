import { startTransition, useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { answered, client, picture, Refusal, type BenchAnswer, type Problem, type Shot } from '../api/client'
import { Frames } from './frames'
import { AfterRest, Latest, NotTooOften } from './latest'
import { soloed } from './lights/lights'
import { RETRY_MS, type Now, type Saving, type View } from './now'

/** The hand rests when nothing was turned for so long; a key that is held repeats sooner. */
const REST_MS = 90
/** Nobody reads figures faster than this; a picture is seen faster. */
const FIGURES_MS = 100
/** Of the width of a picture, while a control is turned. */
const COARSE = 0.5

/**
 * What is set, worked out: figures, findings and frame, always of the last shot that was asked for. While another screen
 * stands before it nothing is, and all of it when it comes back.
 */
export function useComputing(
  now: Now,
  say: (saving: Saving | ((before: Saving) => Saving)) => void,
  inSight: boolean,
) {
  const [answer, setAnswer] = useState<BenchAnswer>()
  const [frames] = useState(() => new Frames())
  const [view, setView] = useState<View>(now.current.view)
  const [refusal, setRefusal] = useState<Problem>()
  const [workedOut, setWorkedOut] = useState<Shot>(now.current.shot)

  const compute = useMemo(() => {
    const again = () =>
      window.setTimeout(() => compute.run({ shot: now.current.shot, view: now.current.view }), RETRY_MS)
    const [better, fine] = [new AfterRest(0), new AfterRest(REST_MS)]
    const figures = new NotTooOften(FIGURES_MS)
    const compute = new Latest<{ shot: Shot; view: View }>(async ({ shot, view }) => {
      // What was worked out before this is old, whatever comes of it.
      better.leave()
      fine.leave()
      figures.leave()
      try {
        const alone = soloed(shot, view.solo)
        const pixels = (share: number) => Math.round(view.width * share)
        const draw = (share: number, how?: { signal?: AbortSignal; soon?: boolean }) =>
          picture(alone, pixels(share), view.layers, view.crop, how)
        // While a control is turned a quarter of the pixels is enough, and here the sooner; the loupe is for pixels.
        const coarse = view.crop.size === 1
        // The picture is on the screen as soon as it is here, whatever the figures take.
        const drawn = draw(coarse ? COARSE : 1, { soon: coarse }).then((frame) => {
          frames.show(frame, coarse || compute.isStale, coarse)
          if (!coarse || compute.isStale) return
          // Who was never seen there before is seen narrower first, and at once as coarse as anything while the hand goes on.
          if (frame.width < 0.75 * pixels(COARSE)) {
            better.come((signal) =>
              draw(COARSE, { signal }).then(
                (frame) => frames.show(frame, true, true),
                () => undefined,
              ),
            )
          }
          fine.come((signal) =>
            draw(1, { signal }).then(
              (frame) => {
                better.leave()
                frames.show(frame, compute.isStale)
              },
              () => signal.aborted || again(),
            ),
          )
        })
        const [answer] = await Promise.all([answered(client.POST('/api/bench', { body: shot })), drawn])
        now.current.refused = false
        // The picture first; figures and sentences follow in the next breath.
        figures.come(() =>
          startTransition(() => {
            setAnswer(answer)
            setWorkedOut(shot)
            setRefusal(undefined)
            say((before) => (before === 'silent' || before === 'refused' ? 'saved' : before))
          }),
        )
      } catch (error) {
        setWorkedOut(shot)
        if (error instanceof Refusal) {
          now.current.refused = true
          if (!compute.isStale) frames.stay()
          setRefusal(error.problem)
          say('refused')
        } else {
          say('silent')
          again()
        }
      }
    })
    return compute
  }, [frames, now, say])

  const seen = useRef(inSight)
  const recompute = useCallback(() => {
    if (!seen.current) return
    frames.await()
    compute.run({ shot: now.current.shot, view: now.current.view })
  }, [compute, frames, now])
  useEffect(() => {
    seen.current = inSight
    recompute()
  }, [inSight, recompute])

  const look = useCallback(
    (to: Partial<View>) => {
      now.current.view = { ...now.current.view, ...to }
      setView(now.current.view)
      recompute()
    },
    [now, recompute],
  )

  return { answer, workedOut, frames, view, refusal, setRefusal, recompute, look }
}
