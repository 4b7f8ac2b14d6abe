import { Button } from '@mantine/core'
import { useMutation } from '@tanstack/react-query'
import { memo, type RefObject } from 'react'
import { answered, client, type Shot } from '../api/client'
import { Key } from '../commands/Key'
import { download } from '../words/download'
import { Arrangements } from './Arrangements'
import { asFile } from './drawing'
import classes from './Floor.module.css'
import { SMALL } from './small'

type Props = OutProps & { saving: string }

/** What the set is called, and the ways out of here: another shot's lights, paper, table, drawing, the Bench. */
export function FloorHead({ saving, ...out }: Props) {
  return (
    <header className={classes.head}>
      <h1 className={classes.title}>
        {out.title} <small>the set on the floor</small>
      </h1>
      <span className={classes.spacer} />
      <span className={classes.saving}>{saving}</span>
      <WaysOut {...out} />
    </header>
  )
}

type OutProps = {
  title: string
  shotNow: () => Shot
  drawing: RefObject<HTMLElement | null>
  onChange: (shot: Shot) => void
  onRefused: (why: string | undefined) => void
  onSaid: (says: string[]) => void
  onClose: () => void
}

/** Not drawn again while a light is carried. */
const WaysOut = memo(function WaysOut({
  title,
  shotNow,
  drawing,
  onChange,
  onRefused,
  onSaid,
  onClose,
}: OutProps) {
  const table = useMutation({
    mutationFn: () => answered(client.POST('/api/floor/table', { body: shotNow(), parseAs: 'text' })),
    onMutate: () => onRefused(undefined),
    onSuccess: (text) => download(new Blob([text as string], { type: 'text/csv' }), `${title} set.csv`),
    onError: ({ message }) => onRefused(message),
  })
  return (
    <>
      <Arrangements shotNow={shotNow} onChange={onChange} onSaid={onSaid} />
      <Button {...SMALL} onClick={() => window.print()}>
        Print to rebuild
      </Button>
      <Button {...SMALL} onClick={() => table.mutate()}>
        Table
      </Button>
      <Button
        {...SMALL}
        onClick={() => {
          const svg = drawing.current?.querySelector('svg')
          if (svg) download(asFile(svg), `${title} set.svg`)
        }}
      >
        Drawing
      </Button>
      <Button {...SMALL} onClick={onClose}>
        Bench&nbsp;
        <Key of="to_bench" />
      </Button>
    </>
  )
})
