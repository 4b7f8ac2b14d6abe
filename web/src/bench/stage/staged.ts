import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { answered, client, type Shot, type StageAnswer } from '../../api/client'

/** What stands in the frame and where, while somebody asks. */
export function useStaged(shot: Shot, asked: boolean): StageAnswer | undefined {
  const { data } = useQuery({
    queryKey: ['stage', asked ? shot : null],
    queryFn: () => answered(client.POST('/api/stage', { body: shot })),
    enabled: asked,
    gcTime: 0,
    retry: false,
    placeholderData: keepPreviousData,
  })
  // What cannot be is said at its field, and what stood there last is still to be seen.
  const [last, setLast] = useState<StageAnswer>()
  if (data && data !== last) setLast(data)
  return data ?? last
}

type Box = StageAnswer['parts'][number]['at']
export type Spot = { x: number; y: number }

/** What is at a place of the frame, in shares of it: of several, the one that takes least of the frame. */
export function leastAt<T extends { at: Box }>(
  all: (T | null | undefined)[],
  { x, y }: Spot,
): number | undefined {
  const hit = all.flatMap((one, index) => {
    if (!one) return []
    const { left, top, right, bottom } = one.at
    const inside = x >= left && x <= right && y >= top && y <= bottom
    return inside ? [{ index, size: (right - left) * (bottom - top) }] : []
  })
  return hit.toSorted((a, b) => a.size - b.size)[0]?.index
}

/** The part that is seen at a place of the frame, by its place in the shot's list. */
export function partAt(staged: StageAnswer | undefined, at: Spot): number | undefined {
  const found = staged && leastAt(staged.parts, at)
  return found === undefined ? undefined : staged!.parts[found]!.part
}

/** Height of the frame against its width, as the camera is held. */
export function frameShape({ camera, stage }: Shot, staged: StageAnswer | undefined): number {
  const { sensor_width_mm: long, sensor_height_mm: short } = camera.body
  return (stage ?? staged?.composition)?.upright ? long / short : short / long
}

/** The shot with somebody elsewhere: to the right of the mark, and away from it. */
export function withPersonAt(
  shot: Shot,
  staged: StageAnswer,
  who: number,
  to: { right_m: number; away_m: number },
): Shot {
  const stage = shot.stage ?? staged.composition
  const people = (stage.people ?? []).map((one, index) => (index === who ? { ...one, ...to } : one))
  return { ...shot, stage: { ...stage, people } }
}
