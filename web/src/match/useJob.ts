import { useEffect, useState } from 'react'
import type { JobAnswer, JobEvent } from '../api/client'
import { hearLines } from '../api/lines'

type State = {
  job?: JobAnswer | undefined
  progress?: { done: number; of: number }
  /** It was ended before it had an answer. */
  stopped?: boolean
  refusal?: Error
}

/** What to take along for some shots, heard line by line; another list ends the question before. */
export function useJob(shots: string[] | undefined) {
  const [state, setState] = useState<State>({})
  const [asked, setAsked] = useState(0)
  const [control, setControl] = useState<AbortController>()
  const list = shots?.join(' ')
  useEffect(() => {
    if (!list) {
      setState({})
      return
    }
    const control = new AbortController()
    let left = false
    setControl(control)
    // What was found for the list before stays in sight while the next is worked out.
    setState(({ job }) => ({ job, progress: { done: 0, of: 0 } }))
    hearLines<JobEvent>('/api/match/job', { shots: list.split(' ') }, control.signal, (event) => {
      if (left) return
      if (event.is === 'progress') setState(({ job }) => ({ job, progress: event }))
      else setState({ job: event.answer })
    }).catch((refusal: Error) => {
      if (!left) setState(control.signal.aborted ? { stopped: true } : { refusal })
    })
    return () => {
      left = true
      control.abort()
    }
  }, [list, asked])
  return { ...state, stop: () => control?.abort(), again: () => setAsked((count) => count + 1) }
}
