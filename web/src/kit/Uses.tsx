import { Button } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import { answered, client } from '../api/client'
import classes from './KitScreen.module.css'

/** Who carries a thing. */
export function Uses({ id, onEnter }: { id: string; onEnter: () => void }) {
  const uses = useQuery({
    queryKey: ['kit', 'uses', id],
    queryFn: () => answered(client.GET('/api/kit/items/{id}/uses', { params: { path: { id } } })),
  }).data
  return (
    <div className={classes.uses}>
      <h3 className={classes.title}>Carried by</h3>
      {uses?.length === 0 && <p>Nothing yet. It can be deleted.</p>}
      <ul>
        {uses?.map((use) => (
          <li key={use.id}>
            <Link to={use.is_shot ? `/shots/${use.id}` : `/kit/unit/${use.id}`}>{use.name}</Link>
          </li>
        ))}
      </ul>
      <Button size="compact-sm" radius="xl" variant="default" onClick={onEnter}>
        Change its figures
      </Button>
    </div>
  )
}
