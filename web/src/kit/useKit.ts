import { useMutation, useQueries, useQuery, useQueryClient } from '@tanstack/react-query'
import { useRef } from 'react'
import { missing } from './fields'
import {
  answered,
  asked,
  client,
  type FlashUnit,
  type Item,
  type ItemAnswer,
  type Sheet,
  type TraceAnswer,
} from '../api/client'

/** What the program reads of one recording at most; one byte more is sent so that it says so itself. */
const LARGEST_TRACE = 128 * 1024 * 1024

export const useShelf = () =>
  useQuery({ queryKey: ['kit', 'shelf'], queryFn: () => answered(client.GET('/api/kit/shelf')) })

export const itemQuery = (id: string) => ({
  queryKey: ['kit', 'item', id],
  queryFn: () => answered(client.GET('/api/kit/items/{id}', { params: { path: { id } } })),
  enabled: id !== '',
})

export const useThing = (id: string) => useQuery(itemQuery(id))

/** What units do, computed for figures that need not be saved. While an answer is on its way the one before stands. */
export function useSheets(units: FlashUnit[], rate: number) {
  const before = useRef(new Map<string, Sheet>())
  const queries = useQueries({
    queries: units.map((unit) => ({
      enabled: missing({ what: 'unit', item: unit }).length === 0,
      queryKey: ['sheet', rate, unit],
      queryFn: () =>
        answered<Sheet>(
          client.POST('/api/units/sheet', { params: { query: { frames_per_second: rate } }, body: unit }),
        ),
      staleTime: Number.POSITIVE_INFINITY,
      gcTime: 60_000,
    })),
  })
  return units.map((unit, index) => {
    const { data, error } = queries[index]!
    if (data) before.current.set(unit.id, data)
    return { sheet: data ?? before.current.get(unit.id), error }
  })
}

/** The times that a shot asks of a flash. */
export const useGuides = (shot: string | null) =>
  useQuery({
    queryKey: ['guides', shot],
    queryFn: () => answered(client.GET('/api/shots/{id}/guides', { params: { path: { id: shot! } } })),
    enabled: !!shot,
  })

type Change =
  | { do: 'add'; item: Item }
  | { do: 'put'; at: ItemAnswer; item: Item }
  | { do: 'undo' | 'redo' | 'retire' | 'unretire' | 'delete'; at: ItemAnswer }
  | { do: 'restore'; id: string }

function carriedOut(change: Change): Promise<ItemAnswer | undefined> {
  if (change.do === 'add') return answered(client.POST('/api/kit/items', { body: change.item }))
  if (change.do === 'restore')
    return answered(client.POST('/api/kit/items/{id}/restore', { params: { path: { id: change.id } } }))
  const params = { path: { id: change.at.id }, header: { 'If-Match': `"${change.at.version}"` } }
  switch (change.do) {
    case 'put':
      return answered(client.PUT('/api/kit/items/{id}', { params, body: change.item }))
    case 'delete':
      return answered(client.DELETE('/api/kit/items/{id}', { params }))
    case 'undo':
      return answered(client.POST('/api/kit/items/{id}/undo', { params }))
    case 'redo':
      return answered(client.POST('/api/kit/items/{id}/redo', { params }))
    case 'retire':
      return answered(client.POST('/api/kit/items/{id}/retire', { params }))
    case 'unretire':
      return answered(client.POST('/api/kit/items/{id}/unretire', { params }))
  }
}

/** Any change of one thing. Shots show the kit's figures of today, so they are asked for again. */
export function useChange() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: carriedOut,
    onSuccess: (answer, change) => {
      if (change.do === 'delete') queries.removeQueries({ queryKey: ['kit', 'item', change.at.id] })
      if (answer) queries.setQueryData(['kit', 'item', answer.id], answer)
      for (const key of ['kit', 'shots', 'shot', 'guides']) {
        void queries.invalidateQueries({ queryKey: [key] })
      }
    },
  })
}

/** What is known of a recording beside its file. */
export type Beside = { interval?: string; channel?: number }

/** Sends a recording as it stands on the disk. */
export async function readTrace(file: Blob, { interval, channel }: Beside = {}): Promise<TraceAnswer> {
  const query = new URLSearchParams({
    ...(interval && { interval }),
    ...(channel && { channel: String(channel) }),
  })
  const body = file.slice(0, LARGEST_TRACE + 1)
  const response = await asked(`/api/traces?${query}`, {
    method: 'POST',
    headers: { 'content-type': 'text/csv' },
    body,
  })
  return (await response.json()) as TraceAnswer
}

/** The file that the simulated recorder writes when a unit fires before it. */
export async function rehearsed(unit: FlashUnit, power: number): Promise<Blob> {
  const response = await asked(`/api/stand-ins/recording?power=${power}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(unit),
  })
  return response.blob()
}
