import { UnstyledButton } from '@mantine/core'
import { memo, type ReactNode } from 'react'
import type { Finding, Remedy } from '../api/client'
import { SeverityMark } from '../marks/SeverityMark'
import classes from './Findings.module.css'

type Props = { findings: Finding[] | undefined; onApply: (remedy: Remedy) => void; children?: ReactNode }

/** Short sentences with a number, a cause, and what to turn: one press applies it. */
export const Findings = memo(function Findings({ findings, onApply, children }: Props) {
  const open = findings?.filter((finding) => finding.severity !== 'fine').length
  return (
    <section className={classes.findings} aria-label="Findings" aria-busy={!findings}>
      <h2 className={classes.title}>
        Findings <small>{open === undefined ? '' : open === 0 ? 'all is well' : `${open} open`}</small>
      </h2>
      <ul className={classes.list} aria-live="polite" tabIndex={0} aria-label="What was found">
        {findings?.map((finding) => (
          <li
            key={finding.id}
            className={classes.finding}
            data-severity={finding.severity}
            data-finding={finding.id}
          >
            <h3 className={classes.what}>
              <SeverityMark severity={finding.severity} />
              {finding.title}
            </h3>
            <p className={classes.cause}>{finding.cause}</p>
            {finding.unanswered && finding.severity !== 'fine' && (
              <p className={classes.unanswered}>{finding.unanswered}</p>
            )}
            {finding.remedies.map((remedy) => (
              <UnstyledButton key={remedy.label} className={classes.remedy} onClick={() => onApply(remedy)}>
                {remedy.label}
                {remedy.effect && <span className={classes.effect}>{remedy.effect}</span>}
              </UnstyledButton>
            ))}
          </li>
        ))}
      </ul>
      {children}
    </section>
  )
})
