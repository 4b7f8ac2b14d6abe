import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { answered, client, type Setup, type Shot } from '../api/client'

/** A shot with a set-up in place; nothing while there is none. */
export function useSetSo(shot: Shot | undefined, setup: Setup | undefined): Shot | undefined {
  const there = useQuery({
    queryKey: ['set-up', shot, setup],
    queryFn: () => answered(client.POST('/api/match/apply', { body: { shot: shot!, setup: setup! } })),
    enabled: shot !== undefined && setup !== undefined,
    placeholderData: keepPreviousData,
    gcTime: 0,
  }).data
  return setup && there
}
