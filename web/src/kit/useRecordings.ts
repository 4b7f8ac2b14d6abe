import { useState } from 'react'
import { Refusal, type FlashUnit, type Item, type ItemAnswer } from '../api/client'
import type { Brought } from './TraceDialog'
import { readTrace, rehearsed, type Beside, type useChange } from './useKit'

type Props = {
  kept: ItemAnswer | undefined
  change: ReturnType<typeof useChange>
  told: (error: unknown) => void
  /** A recording was read: what was said before is done with. */
  onRead: () => void
}
/** A file of counted samples, and how to read it once it is known how far apart they are. */
export type Counted = { name: string; words: string; read: (interval: string) => void }
type Recording = NonNullable<FlashUnit['recordings']>[number]

/** Recordings of the unit in hand: read, rehearsed, filed and forgotten. */
export function useRecordings({ kept, change, told, onRead }: Props) {
  const [brought, setBrought] = useState<Brought>()
  /** A file whose samples are only counted: how far apart they are is asked for. */
  const [counted, setCounted] = useState<Counted>()
  const [reading, setReading] = useState(false)
  const bring = async (file: Blob, name: string, power: number, means: string, beside: Beside = {}) => {
    setReading(true)
    try {
      const answer = await readTrace(file, beside)
      setBrought({ answer, file: name, power, with: means, again: (more) => again({ ...beside, ...more }) })
      setCounted(undefined)
      onRead()
    } catch (error) {
      if (error instanceof Refusal && ['interval', 'text'].includes(error.problem.field ?? ''))
        setCounted({
          name,
          words: error.problem.detail,
          read: (interval) => void bring(file, name, power, means, { ...beside, interval }),
        })
      else told(error)
    } finally {
      setReading(false)
    }
    function again(more: Beside) {
      void bring(file, name, power, means, more)
    }
  }
  const rehearse = async (unit: FlashUnit, power: number) => {
    try {
      await bring(await rehearsed(unit, power), 'rehearsed', power, 'simulated recorder')
    } catch (error) {
      told(error)
    }
  }
  const put = (recordings: (before: Recording[]) => Recording[], done?: () => void) => {
    if (!kept || kept.thing.what !== 'unit') return
    const item: Item = {
      ...kept.thing,
      item: { ...kept.thing.item, recordings: recordings(kept.thing.item.recordings ?? []) },
    }
    change.mutate({ do: 'put', at: kept, item }, { onSuccess: () => done?.(), onError: told })
  }
  const filed = (recording: Recording) =>
    put(
      (before) => [...before, recording],
      () => setBrought(undefined),
    )
  const forget = (index: number) => put((before) => before.filter((_, k) => k !== index))
  /** Whether a reading of a meter counts, or is kept for its history alone. */
  const count = (index: number, counts: boolean) => {
    if (!kept || kept.thing.what !== 'unit') return
    const readings = (kept.thing.item.readings ?? []).map((one, k) =>
      k === index ? { ...one, counts } : one,
    )
    const item: Item = { ...kept.thing, item: { ...kept.thing.item, readings } }
    change.mutate({ do: 'put', at: kept, item }, { onError: told })
  }
  return {
    count,
    brought,
    counted,
    leave: () => {
      setBrought(undefined)
      setCounted(undefined)
    },
    reading,
    bring,
    rehearse,
    filed,
    forget,
  }
}
