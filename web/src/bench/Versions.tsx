import { Button, SimpleGrid, Table, Text, TextInput, UnstyledButton } from '@mantine/core'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { BaySheet } from './Bay'
import { answered, client, type Shot, type ShotAnswer, type Version } from '../api/client'
import { Side } from './Side'
import classes from './Versions.module.css'

type Props = { now: Shot; kept: ShotAnswer; onBack: (answer: ShotAnswer) => void; onClose: () => void }

/** Earlier versions of a shot: named, laid beside the one that counts, brought back. */
export function Versions({ now, kept, onBack, onClose }: Props) {
  const { id } = kept
  const queries = useQueryClient()
  const [chosen, setChosen] = useState<number>()
  const [all, setAll] = useState(false)
  const [beside, setBeside] = useState<number>()
  const list = useQuery({
    queryKey: ['versions', id, kept.version],
    queryFn: () => answered(client.GET('/api/shots/{id}/versions', { params: { path: { id } } })),
    gcTime: 0,
  })
  const revision = chosen ?? list.data?.find((version) => !version.is_now && !version.folds)?.revision
  const compared = useQuery({
    queryKey: ['versions', id, kept.version, revision, beside],
    queryFn: () =>
      answered(
        client.GET('/api/shots/{id}/versions/{revision}', {
          params: { path: { id, revision: revision! }, query: { beside } },
        }),
      ),
    enabled: revision !== undefined,
    gcTime: 0,
  }).data
  const call = useMutation({
    mutationFn: ({ revision, name }: { revision: number; name: string }) =>
      answered(
        client.PUT('/api/shots/{id}/versions/{revision}/name', {
          params: { path: { id, revision } },
          body: { name: name || null },
        }),
      ),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['versions', id] }),
  })
  const back = useMutation({
    mutationFn: (revision: number) =>
      answered(
        client.POST('/api/shots/{id}/versions/{revision}/back', {
          params: { path: { id, revision }, header: { 'If-Match': `"${kept.version}"` } },
        }),
      ),
    onSuccess: (answer) => {
      onBack(answer)
      onClose()
    },
  })
  const shown = (list.data ?? []).filter((version) => all || !version.folds)
  const folded = (list.data ?? []).filter((version) => version.folds).length
  const failure = list.error ?? call.error ?? back.error
  return (
    <BaySheet title="Versions of this shot" onClose={onClose}>
      {failure && (
        <Text size="sm" c="var(--dp-trouble)" role="alert">
          {failure.message}
        </Text>
      )}
      <div className={classes.columns} data-testid="versions">
        <div className={classes.list}>
          <ul className={classes.all}>
            {shown.map((version) => (
              <li key={version.revision}>
                <Entry
                  version={version}
                  chosen={version.revision === revision}
                  beside={beside === undefined ? version.is_now : version.revision === beside}
                  onBeside={() => setBeside(version.is_now ? undefined : version.revision)}
                  onChoose={() => setChosen(version.revision)}
                  onCall={(name) => call.mutate({ revision: version.revision, name })}
                />
              </li>
            ))}
          </ul>
          {folded > 0 && (
            <UnstyledButton className={classes.beside} aria-pressed={all} onClick={() => setAll(!all)}>
              {all ? 'fold what was within a minute' : `${folded} more within a minute of these`}
            </UnstyledButton>
          )}
        </div>
        {compared && revision !== undefined ? (
          <div className={classes.compared}>
            <SimpleGrid cols={2}>
              <Side title={called(list.data?.find((one) => one.revision === revision))} shot={compared.shot}>
                <Button size="xs" loading={back.isPending} onClick={() => back.mutate(revision)}>
                  Bring this back
                </Button>
              </Side>
              <Side
                title={
                  beside === undefined ? 'Now' : called(list.data?.find((one) => one.revision === beside))
                }
                shot={beside === undefined ? now : compared.beside}
              />
            </SimpleGrid>
            <div className={classes.differences}>
              {compared.differences.length === 0 && <Text size="sm">Nothing differs.</Text>}
              <Table verticalSpacing={2} fz="sm">
                <Table.Tbody>
                  {compared.differences.map((one) => (
                    <Table.Tr key={one.what} data-difference={one.what}>
                      <Table.Td c="dimmed">{one.what}</Table.Td>
                      <Table.Td>{one.before}</Table.Td>
                      <Table.Td fw={one.kind === 'setting' ? 700 : undefined}>{one.after}</Table.Td>
                    </Table.Tr>
                  ))}
                </Table.Tbody>
              </Table>
            </div>
          </div>
        ) : (
          <Text size="sm" c="dimmed">
            There is no earlier version yet. Every change makes one; give those a name that you want to find
            again.
          </Text>
        )}
      </div>
    </BaySheet>
  )
}

/** What a version goes by. */
const called = (version: Version | undefined) =>
  version ? (version.name ?? new Date(version.made_at).toLocaleTimeString('en-GB')) : 'Then'

type EntryProps = {
  version: Version
  chosen: boolean
  /** It is the one on the right. */
  beside: boolean
  onChoose: () => void
  onBeside: () => void
  onCall: (name: string) => void
}

function Entry({ version, chosen, beside, onChoose, onBeside, onCall }: EntryProps) {
  const [name, setName] = useState(version.name ?? '')
  const made = new Date(version.made_at)
  return (
    <div className={classes.entry} data-chosen={chosen || undefined} data-version={version.revision}>
      <UnstyledButton className={classes.choose} onClick={onChoose} aria-pressed={chosen}>
        <b>{version.name ?? made.toLocaleTimeString('en-GB')}</b>
        <small>
          {version.is_now
            ? 'counts now'
            : made.toLocaleDateString('en-GB', { day: 'numeric', month: 'short' })}
        </small>
      </UnstyledButton>
      {version.said && <p className={classes.said}>{version.said}</p>}
      {!chosen && (
        <UnstyledButton
          className={classes.beside}
          aria-pressed={beside}
          aria-label={`${beside ? 'on the right' : 'beside'}: ${called(version)}`}
          onClick={onBeside}
        >
          {beside ? 'on the right' : 'beside'}
        </UnstyledButton>
      )}
      {chosen && (
        <TextInput
          size="xs"
          aria-label="Name of this version"
          placeholder="Give it a name"
          value={name}
          onChange={(event) => setName(event.currentTarget.value)}
          onBlur={() => name !== (version.name ?? '') && onCall(name)}
          onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
        />
      )}
    </div>
  )
}
