import { MultiSelect, Select, TextInput } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import { answered, client, type Answers, type Briefed, type Place } from '../api/client'
import { PLACES } from '../marks/places'
import { USAGES } from '../marks/usages'
import { choices } from '../words/choices'
import classes from './InAFewWords.module.css'

type Of = Briefed['answers'][number]['of']
type Props = {
  brief: Briefed | undefined
  answers: Answers | undefined
  /** The answer that cannot be, where one cannot. */
  wrong: string | undefined
  onChange: (change: Partial<Answers>) => void
  onEnter: () => void
}

const CHANCES = choices<NonNullable<Answers['chances']>>({
  one: 'One',
  few: 'A few',
  many: 'As many as we like',
})

/** The other answers as short lines, each of which can be left out; what is a guess says so. */
export function InAFewWords({ brief, answers, wrong, onChange, onEnter }: Props) {
  const kit = useQuery({ queryKey: ['kit', 'offered'], queryFn: () => answered(client.GET('/api/kit')) })
  const of = (which: Of) => brief?.answers.find((answer) => answer.of === which)
  const named = (things: { id: string; name: string }[] | undefined) =>
    (things ?? []).map((thing) => ({ value: thing.id, label: thing.name }))
  const look = {
    size: 'sm',
    variant: 'unstyled',
    disabled: !answers,
    classNames: { input: classes.input! },
  } as const
  return (
    <section className={classes.panel} aria-label="In a few words">
      <h2 className={classes.title}>In a few words</h2>
      <Line name="Where" answer={of('place')}>
        <Select
          {...look}
          aria-label="Where"
          searchable
          clearable={!!answers?.place}
          placeholder={brief ? PLACES[brief.place] : 'as is usual for it'}
          data={choices(PLACES)}
          value={answers?.place ?? null}
          onChange={(place) => onChange({ place: place as Place | null })}
        />
      </Line>
      <Line name="The meter says" answer={of('light')}>
        <TextInput
          {...look}
          aria-label="The meter says"
          autoComplete="off"
          spellCheck={false}
          placeholder={of('light')?.said ?? 'typical for the place'}
          title="As you read it: f/2.8 1/60 ISO 1600, EV 7, 200 lx, or black at f/8 1/200 ISO 200"
          value={answers?.meter ?? ''}
          error={wrong === 'meter'}
          onChange={(event) => onChange({ meter: event.currentTarget.value || null })}
          onKeyDown={(event) => event.key === 'Enter' && onEnter()}
        />
      </Line>
      <Line name="What for" answer={of('usage')}>
        <Select
          {...look}
          aria-label="What for"
          clearable={!!answers?.usage}
          placeholder={USAGES.find((usage) => usage.value === brief?.usage)?.label ?? 'a print'}
          data={USAGES}
          value={answers?.usage ?? null}
          onChange={(usage) => onChange({ usage: usage as Answers['usage'] })}
        />
      </Line>
      <Line name="Camera" answer={of('camera')}>
        <Select
          {...look}
          aria-label="Camera"
          clearable={!!answers?.camera}
          placeholder={of('camera')?.said ?? 'the first of the kit'}
          data={named(kit.data?.cameras)}
          value={answers?.camera ?? null}
          onChange={(camera) => onChange({ camera })}
        />
      </Line>
      <Line name="Lights" answer={of('lights')}>
        <MultiSelect
          {...look}
          aria-label="Lights"
          clearable
          placeholder={answers?.units?.length ? '' : 'choose for me'}
          data={named(kit.data?.units)}
          value={answers?.units ?? []}
          onChange={(units) => onChange({ units })}
        />
      </Line>
      <Line name="How many chances" answer={of('chances')}>
        <Select
          {...look}
          aria-label="How many chances"
          clearable={!!answers?.chances}
          placeholder={CHANCES.find((one) => one.value === brief?.chances)?.label ?? 'as is usual for it'}
          data={CHANCES}
          value={answers?.chances ?? null}
          onChange={(chances) => onChange({ chances: chances as Answers['chances'] })}
        />
      </Line>
      <p className={classes.aside}>
        Every answer can be left out. Tab goes to the next, ↵ to the Bench when it is enough.
      </p>
    </section>
  )
}

/** One answer: what is asked, whether it is a guess, and where it is from. */
function Line({
  name,
  answer,
  children,
}: {
  name: string
  answer: Briefed['answers'][number] | undefined
  children: ReactNode
}) {
  return (
    <div className={classes.line} data-answer={name} data-guess={answer?.guess}>
      <span className={classes.name}>
        {name}
        {answer?.guess && <span className={classes.guess}> · a guess</span>}
      </span>
      {children}
      {answer && <span className={classes.from}>{answer.from}</span>}
    </div>
  )
}
