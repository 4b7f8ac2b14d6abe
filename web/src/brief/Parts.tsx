import { Menu, TextInput, UnstyledButton } from '@mantine/core'
import type { Answers, Briefed, Intent } from '../api/client'
import { INTENT_WORDS, IntentMark } from '../marks/IntentMark'
import { percent, pixels } from '../words/figures'
import classes from './Parts.module.css'

type AnsweredPart = NonNullable<Answers['parts']>[number]
type Props = {
  parts: Briefed['parts']
  answers: Answers
  /** Whether something that was said of a part cannot be. */
  refused: boolean
  onChange: (parts: AnsweredPart[]) => void
}

const INTENTS: Intent[] = ['pebble', 'skim', 'dash']
const NAMES: Record<Intent, string> = { pebble: 'Pebble', skim: 'Skim', dash: 'Dash' }
const STATES = { met: '', near: 'near', missed: 'missed' } as const

/** Whole numbers where they are large enough. */
const figure = (speed: number) => String(+speed.toPrecision(2))
/** From the slowest to the fastest. */
const span = (from: number, to: number) =>
  figure(from) === figure(to) ? `${figure(to)} m/s` : `${figure(from)}–${figure(to)} m/s`

/** What shall be still and what may streak: each part with its speed, which can be said in any words, and what becomes of it. */
export function Parts({ parts, answers, refused, onChange }: Props) {
  const said = answers.parts ?? []
  const put = (name: string, change: Partial<AnsweredPart>) => {
    const now = said.find((part) => part.name === name) ?? { name }
    onChange([...said.filter((part) => part.name !== name), { ...now, ...change }])
  }
  return (
    <section className={classes.panel} aria-label="What shall be still">
      <h2 className={classes.title}>What shall be still</h2>
      <ul className={classes.rows}>
        {parts.map((part) => (
          <li key={part.name} className={classes.row} data-state={part.state} data-part={part.name}>
            <Menu position="bottom-start" returnFocus>
              <Menu.Target>
                <UnstyledButton
                  className={classes.intent}
                  aria-label={`${part.name}: ${NAMES[part.intent]}, change it`}
                >
                  <IntentMark intent={part.intent} />
                  <b>{part.name}</b>
                </UnstyledButton>
              </Menu.Target>
              <Menu.Dropdown>
                {INTENTS.map((intent) => (
                  <Menu.Item
                    key={intent}
                    leftSection={<IntentMark intent={intent} size={13} />}
                    onClick={() => put(part.name, { intent })}
                  >
                    {NAMES[intent]}, {INTENT_WORDS[intent]}
                  </Menu.Item>
                ))}
              </Menu.Dropdown>
            </Menu>
            <TextInput
              size="xs"
              variant="unstyled"
              className={classes.speed}
              autoComplete="off"
              spellCheck={false}
              aria-label={`How fast: ${part.name}`}
              title={`${part.basis}. Say it as you know it: sprint, 12 km/h, jump 40 cm, 2 turns a second at 50 cm, 100 m in 12 s`}
              placeholder={span(part.slowest_m_s, part.fastest_m_s)}
              value={said.find((one) => one.name === part.name)?.speed ?? ''}
              error={refused && !!said.find((one) => one.name === part.name)?.speed}
              onChange={(event) => put(part.name, { speed: event.currentTarget.value || null })}
            />
            <span className={classes.known}>
              {part.guess ? part.basis : span(part.slowest_m_s, part.fastest_m_s)}
            </span>
            <b className={`mono ${classes.figure}`}>
              {part.intent === 'dash' ? percent(part.streak_share) : pixels(part.blur_px)}
              {STATES[part.state] && <small> {STATES[part.state]}</small>}
            </b>
          </li>
        ))}
      </ul>
    </section>
  )
}
