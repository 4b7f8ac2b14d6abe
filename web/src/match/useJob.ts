import { useEffect, useState } from 'react'
import type { JobAnswer, JobEvent } from '../api/client'
import { hearLines } from '../api/lines'

type State = {
  job?: JobAnswer | undefined
  /** The shots that it was worked out for, in its order: those before while another list is worked out. */
  of?: string[] | undefined
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
    setState(({ job, of }) => ({ job, of, progress: { done: 0, of: 0 } }))
    const those = list.split(' ')
    hearLines<JobEvent>('/api/match/job', { shots: those }, control.signal, (event) => {
      if (left) return
      if (event.is === 'progress') setState(({ job, of }) => ({ job, of, progress: event }))
      else setState({ job: event.answer, of: those })
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
