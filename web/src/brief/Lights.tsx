import type { Briefed } from '../api/client'
import { SeverityMark } from '../marks/SeverityMark'
import classes from './Lights.module.css'

const HEADS: Record<Briefed['lit']['by'], string> = {
  flash: 'Your lights can do it',
  daylight: 'No flash is needed',
  nearest: 'Nearly: something has to give',
  nothing: 'Not with this kit',
}

/** A few stops and one decimal; a single one where that is all it is. */
const stops = (value: number) => `${value.toFixed(1)} ${value === 1 ? 'stop' : 'stops'}`

type Props = {
  brief: Briefed
  /** The guess that matters most. */
  most: Briefed['answers'][number] | undefined
}

const WHAT: Partial<Record<Briefed['answers'][number]['of'], string>> = {
  light: 'The steady light is a guess.',
  speeds: 'The speeds are a guess.',
  usage: 'What it is for is a guess.',
}

/** How the shot would be lit: units and settings, what has to give, and which guess matters most. */
export function Lights({ brief, most }: Props) {
  const { lit, troubles, watches, cautions } = brief
  return (
    <section className={classes.panel} aria-label="Lights" data-lit={lit.by}>
      <h2 className={classes.title}>{HEADS[lit.by]}</h2>
      <p className={classes.unit}>
        {lit.title}
        {lit.how && <span className="mono"> {lit.how}</span>}
      </p>
      <p className={`mono ${classes.exposure}`}>{lit.exposure}</p>
      <p className={classes.says}>
        {lit.says}
        {lit.ways > 1 && ` · ${lit.ways.toLocaleString('en')} ways in all`}
      </p>
      {lit.gives.map((give) => (
        <p key={give} className={classes.gives}>
          {give}
        </p>
      ))}
      {most?.moves && (
        <p className={classes.guess}>
          <b>{WHAT[most.of] ?? 'That is a guess.'}</b> A {most.of === 'light' ? 'reading' : 'real figure'}{' '}
          could move {most.moves.what} by {stops(most.moves.stops)}.
        </p>
      )}
      <p className={classes.marks}>
        <SeverityMark severity={troubles ? 'trouble' : watches ? 'watch' : 'fine'} />
        {troubles ? `${troubles} in trouble` : watches ? `no trouble, ${watches} to watch` : 'no trouble'}
        {cautions > 0 && ` · ${cautions} ${cautions === 1 ? 'caution comes' : 'cautions come'} with it`}
      </p>
    </section>
  )
}
