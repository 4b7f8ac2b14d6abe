import { useState } from 'react'
import type { FlashUnit, Item, ItemAnswer } from '../api/client'
import type { Brought } from './TraceDialog'
import { readTrace, rehearsed, type useChange } from './useKit'

type Props = {
  kept: ItemAnswer | undefined
  change: ReturnType<typeof useChange>
  told: (error: unknown) => void
  /** A recording was read: what was said before is done with. */
  onRead: () => void
}
type Recording = NonNullable<FlashUnit['recordings']>[number]

/** Recordings of the unit in hand: read, rehearsed, filed and forgotten. */
export function useRecordings({ kept, change, told, onRead }: Props) {
  const [brought, setBrought] = useState<Brought>()
  const [reading, setReading] = useState(false)
  const bring = async (file: Blob, name: string, power: number, means: string) => {
    setReading(true)
    try {
      setBrought({ answer: await readTrace(file), file: name, power, with: means })
      onRead()
    } catch (error) {
      told(error)
    } finally {
      setReading(false)
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
  return { brought, leave: () => setBrought(undefined), reading, bring, rehearse, filed, forget }
}
