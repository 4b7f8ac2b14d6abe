import { Button, Text } from '@mantine/core'
import { keepPreviousData, useMutation, useQuery } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { useNavigate } from 'react-router'
import { answered, client, Refusal, type Answers, type Briefed } from '../api/client'
import { Key } from '../commands/Key'
import { useCommands } from '../commands/useCommands'
import { ShotFrame } from '../marks/ShotFrame'
import { Waiting } from '../shell/Waiting'
import { Activities } from './Activities'
import { InAFewWords } from './InAFewWords'
import { Lights } from './Lights'
import { Parts } from './Parts'
import classes from './Brief.module.css'

/** A pause in typing after which it is worth asking, in ms. */
const PAUSE = 60

/** From a few words to a shot: what happens, where, what shall be still; the frame draws itself from the first answer on. */
export function BriefScreen() {
  const navigate = useNavigate()
  const [answers, setAnswers] = useState<Answers>()
  const asked = useSettled(answers)
  const activities = useQuery({
    queryKey: ['activities'],
    queryFn: () => answered(client.GET('/api/activities')),
    staleTime: Infinity,
  })
  const brief = useQuery({
    queryKey: ['brief', asked],
    queryFn: ({ signal }) => answered(client.POST('/api/brief', { body: asked!, signal })),
    enabled: asked !== undefined,
    placeholderData: keepPreviousData,
    gcTime: 0,
    retry: false,
  })
  const open = useMutation({
    // What Enter opens is what was answered last, whatever is on the screen by then.
    mutationFn: async () => {
      const found =
        brief.data && asked === answers && !brief.isPlaceholderData
          ? brief.data
          : await answered(client.POST('/api/brief', { body: answers! }))
      return answered(client.POST('/api/shots', { body: found.shot }))
    },
    onSuccess: (shot) => void navigate(`/shots/${shot.id}`),
  })
  const toBench = () => answers && !open.isPending && open.mutate()
  useEffect(() => {
    document.title = 'A new shot · Dash Pebble'
  }, [])
  // An answer that cannot be leaves what was found before it on the screen.
  const [good, setGood] = useState<Briefed>()
  useEffect(() => {
    if (brief.data) setGood(brief.data)
  }, [brief.data])
  useCommands({ to_the_bench: toBench, leave_brief: () => void navigate('/') })
  if (!activities.data)
    return (
      <Waiting
        what="what a shot can be of"
        error={activities.error}
        onRetry={() => void activities.refetch()}
      />
    )
  const put = (change: Partial<Answers>) =>
    setAnswers((now) => (now ? { ...now, ...change } : change.activity ? { activity: change.activity } : now))
  const problem = (brief.error ?? open.error) as Error | null
  const field = problem instanceof Refusal ? problem.problem.field : undefined
  const seen = answers && (brief.data ?? good)
  return (
    <main
      className={classes.brief}
      data-brief={seen?.shot.activity ?? 'empty'}
      data-settled={asked === answers && !brief.isFetching}
    >
      <h1 className={classes.head}>
        What happens?
        <span className={classes.spacer} />
        <Button radius="xl" disabled={!answers} loading={open.isPending} onClick={toBench}>
          To the Bench&nbsp;
          <Key of="to_the_bench" />
        </Button>
      </h1>
      <Activities
        list={activities.data}
        chosen={answers?.activity}
        onChoose={(activity) => setAnswers((now) => another(now, activity))}
        onEnter={toBench}
      />
      <div className={classes.middle}>
        <div className={classes.frame}>
          {seen ? (
            <ShotFrame shot={seen.shot} />
          ) : (
            <p className={classes.nothing}>
              Choose what happens, or type it. The frame is drawn from the first answer on; every other answer
              can be left out.
            </p>
          )}
        </div>
        {problem && (
          <Text size="sm" role="alert" className={classes.problem}>
            {problem.message}
          </Text>
        )}
        {seen && (
          <Parts
            parts={seen.parts}
            answers={answers!}
            refused={field === 'parts'}
            onChange={(parts) => put({ parts })}
          />
        )}
        {!answers && (
          <ol className={classes.how}>
            <li>
              <b>What happens</b> brings its parts, how fast they usually are, where it usually is and how
              often it can be tried.
            </li>
            <li>
              <b>What you know better</b>, say: a speed as “sprint”, “12 km/h” or “jump 40 cm”, the light as
              your meter reads it.
            </li>
            <li>
              <b>What nobody said</b> is a guess and says so, and which guess matters most. Units and settings
              are found in your kit.
            </li>
          </ol>
        )}
        {seen && <Lights brief={seen} most={mostOf(seen)} />}
      </div>
      <InAFewWords
        brief={seen}
        answers={answers}
        wrong={field ?? undefined}
        onChange={put}
        onEnter={toBench}
      />
    </main>
  )
}

/** Another activity: what was said of its parts goes, the rest stays. */
const another = (now: Answers | undefined, activity: string): Answers => {
  if (now?.activity === activity) return now
  const { parts: _, ...rest } = now ?? { activity }
  return { ...rest, activity }
}

const mostOf = (brief: Briefed) => brief.answers.find((answer) => answer.most)

/** Answers as they stand when nothing was typed for a moment; the first one at once. */
function useSettled(answers: Answers | undefined): Answers | undefined {
  const [settled, setSettled] = useState(answers)
  useEffect(() => {
    if (settled === undefined) return setSettled(answers)
    const timer = setTimeout(() => setSettled(answers), PAUSE)
    return () => clearTimeout(timer)
  }, [answers, settled])
  return settled
}
