import { startTransition, useCallback, useMemo, useState } from 'react'
import { answered, client, picture, Refusal, type BenchAnswer, type Problem, type Shot } from '../api/client'
import { Frames } from './frames'
import { Latest } from './latest'
import { soloed } from './lights/lights'
import { RETRY_MS, type Now, type Saving, type View } from './now'

/** What is set, worked out: figures, findings and frame, always of the last shot that was asked for. */
export function useComputing(now: Now, say: (saving: Saving | ((before: Saving) => Saving)) => void) {
  const [answer, setAnswer] = useState<BenchAnswer>()
  const [frames] = useState(() => new Frames())
  const [view, setView] = useState<View>(now.current.view)
  const [refusal, setRefusal] = useState<Problem>()

  const compute = useMemo(
    () =>
      new Latest<{ shot: Shot; view: View }>(async ({ shot, view }) => {
        try {
          // The picture is on the screen as soon as it is here, whatever the figures take.
          const drawn = picture(soloed(shot, view.solo), view.width, view.layers, view.crop).then((frame) =>
            frames.show(frame, compute.isStale),
          )
          const [answer] = await Promise.all([answered(client.POST('/api/bench', { body: shot })), drawn])
          now.current.refused = false
          // The picture first; figures and sentences follow in the next breath.
          startTransition(() => {
            setAnswer(answer)
            setRefusal(undefined)
            say((before) => (before === 'silent' || before === 'refused' ? 'saved' : before))
          })
        } catch (error) {
          if (error instanceof Refusal) {
            now.current.refused = true
            if (!compute.isStale) frames.stay()
            setRefusal(error.problem)
            say('refused')
          } else {
            say('silent')
            window.setTimeout(() => compute.run({ shot: now.current.shot, view: now.current.view }), RETRY_MS)
          }
        }
      }),
    [frames, now, say],
  )

  const recompute = useCallback(() => {
    frames.await()
    compute.run({ shot: now.current.shot, view: now.current.view })
  }, [compute, frames, now])

  const look = useCallback(
    (to: Partial<View>) => {
      now.current.view = { ...now.current.view, ...to }
      setView(now.current.view)
      recompute()
    },
    [now, recompute],
  )

  return { answer, frames, view, refusal, setRefusal, recompute, look }
}
