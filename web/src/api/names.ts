import { useQuery } from '@tanstack/react-query'
import { answered, client } from './client'

/** All shots by name, in the order of the list. */
export function useShotNames() {
  return useQuery({
    queryKey: ['shots', 'names'],
    queryFn: () => answered(client.GET('/api/shots/names')),
  })
}
