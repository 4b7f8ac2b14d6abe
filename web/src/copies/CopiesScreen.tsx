import { Button, FileButton, Loader } from '@mantine/core'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { answered, asked, client, type Copy } from '../api/client'
import { Waiting } from '../shell/Waiting'
import { CopyInside } from './CopyInside'
import { day, size, WHY } from './words'
import classes from './Copies.module.css'

/** Copies of everything: made, given out, looked into, brought back. */
export function CopiesScreen() {
  const queries = useQueryClient()
  const list = useQuery({ queryKey: ['copies'], queryFn: () => answered(client.GET('/api/copies')) })
  const [chosen, setChosen] = useState<string>()
  const [said, setSaid] = useState('')
  function found(copy: Copy, words: string) {
    setChosen(copy.name)
    setSaid(words)
    return queries.invalidateQueries({ queryKey: ['copies'] })
  }
  const make = useMutation({
    mutationFn: () => answered(client.POST('/api/copies')),
    onSuccess: (copy) => found(copy, 'A copy of everything was made.'),
  })
  const bring = useMutation({
    mutationFn: async (file: File) => {
      const answer = await asked('/api/copies/brought', { method: 'POST', body: file })
      return (await answer.json()) as Copy
    },
    onSuccess: (copy) => found(copy, 'It is among the copies. Look into it before you bring it back.'),
  })
  const back = useMutation({
    mutationFn: (name: string) =>
      answered(client.POST('/api/copies/{id}/bring-back', { params: { path: { id: name } } })),
    onSuccess: (kept) => {
      void found(kept, 'Everything is as it was in the copy. What was here before is the copy at the top.')
      // Shots, kit and frames are others now.
      void queries.invalidateQueries()
    },
  })
  useEffect(() => {
    document.title = 'Copies · Dash Pebble'
  }, [])

  if (!list.data) return <Waiting what="the copies" error={list.error} onRetry={() => void list.refetch()} />
  const { copies, data_file, folder, damage } = list.data
  const shown = copies.find((copy) => copy.name === chosen) ?? copies[0]
  const failure = make.error ?? bring.error ?? back.error
  return (
    <main className={classes.screen}>
      <header className={classes.head}>
        <h1>Copies of everything</h1>
        <Button radius="xl" variant="default" component="a" href="/api/copy" download>
          Take one away
        </Button>
        <FileButton
          onChange={(file) => file && bring.mutate(file)}
          inputProps={{ 'aria-label': 'A copy from elsewhere' }}
        >
          {(props) => (
            <Button {...props} radius="xl" variant="default" loading={bring.isPending}>
              Take one in
            </Button>
          )}
        </FileButton>
        <Button radius="xl" loading={make.isPending} onClick={() => make.mutate()}>
          Make one now
        </Button>
      </header>
      <p className={classes.where}>
        You work in <b className="mono">{data_file}</b>. Copies are files in <b className="mono">{folder}</b>:
        one for each of the last seven days on which you changed something, one before every update, and those
        you ask for.
      </p>
      {damage && (
        <p className={classes.trouble} role="alert">
          Your data file is damaged: {damage}. What can be read works. Bring a copy back, or run{' '}
          <b className="mono">dash-pebble rescue</b> to save what can be read into a new file.
        </p>
      )}
      {(failure ?? said) && (
        <p className={failure ? classes.trouble : classes.notice} role={failure ? 'alert' : 'status'}>
          {failure ? failure.message : said}
        </p>
      )}
      {!shown ? (
        <p className={classes.where}>
          No copy yet. The first is made within the hour after something was changed, or now if you ask.
        </p>
      ) : (
        <div className={classes.columns}>
          <ul className={classes.list} aria-label="Copies, latest first">
            {copies.map((copy) => (
              <li key={copy.name}>
                <button
                  className={classes.copy}
                  aria-current={copy.name === shown.name || undefined}
                  onClick={() => setChosen(copy.name)}
                >
                  <b>{day(copy.made_at)}</b>
                  <span>{WHY[copy.why]}</span>
                  <small className="mono">{size(copy.bytes)}</small>
                </button>
              </li>
            ))}
          </ul>
          <section className={classes.inside} aria-label="What is inside" aria-busy={back.isPending}>
            {back.isPending ? (
              <Loader type="dots" />
            ) : (
              <CopyInside key={shown.name} copy={shown} onBringBack={() => back.mutate(shown.name)} />
            )}
          </section>
        </div>
      )}
    </main>
  )
}
