import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { answered, client, type LanesAnswer, type Shot } from '../../api/client'

/** Movement against time, and where everything is at a moment; nothing while nobody looks. */
export function useLanes(shot: Shot, at: number | undefined, open: boolean): LanesAnswer | undefined {
  const { data } = useQuery({
    queryKey: ['lanes', open ? shot : null, at],
    queryFn: ({ signal }) =>
      answered(client.POST('/api/lanes', { body: { shot, at_s: at ?? null }, signal })),
    enabled: open,
    placeholderData: keepPreviousData,
    gcTime: 0,
    retry: false,
  })
  return open ? data : undefined
}
