import { Button, Menu } from '@mantine/core'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { FilePick } from '../controls/FilePick'
import { asked, client, answered, type Problem, Refusal } from '../api/client'

/** What was taken in, in a sentence. */
export type Taken = { added: number; changed: number; same: number }

/** A kit file or a table of units, told apart by their names. */
export function useTakeIn() {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: async (file: File | 'sample'): Promise<Taken> => {
      if (file === 'sample') {
        const kit = await answered(client.GET('/api/kit/sample'))
        return answered(client.POST('/api/kit/import', { body: kit }))
      }
      const table = /\.(csv|tsv|txt)$/i.test(file.name)
      const response = await asked(table ? '/api/kit/units.csv' : '/api/kit/import', {
        method: 'POST',
        headers: { 'content-type': table ? 'text/csv' : 'application/json' },
        body: file,
      })
      return (await response.json()) as Taken
    },
    onSuccess: () => queries.invalidateQueries({ queryKey: ['kit'] }),
  })
}

/** Rows that are wrong, where a table was refused. */
export const wrongRows = (error: unknown): NonNullable<Problem['rows']> =>
  error instanceof Refusal ? (error.problem.rows ?? []) : []

/** The kit out of files and into them. */
export function TakeIn({ busy, onFile }: { busy: boolean; onFile: (file: File) => void }) {
  return (
    <>
      <FilePick accept=".json,.csv,.tsv" loading={busy} onFile={onFile}>
        Take in a file
      </FilePick>
      <Menu position="bottom-end">
        <Menu.Target>
          <Button size="compact-sm" radius="xl" variant="default">
            Give out
          </Button>
        </Menu.Target>
        <Menu.Dropdown>
          <Menu.Item component="a" href="/api/kit/export" download>
            The whole kit, as the open JSON file
          </Menu.Item>
          <Menu.Item component="a" href="/api/kit/units.csv" download>
            All units, as a table with a row a power
          </Menu.Item>
        </Menu.Dropdown>
      </Menu>
    </>
  )
}
