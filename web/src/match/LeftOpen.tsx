import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { answered, client, type Setup, type Shot } from '../api/client'
import { SeverityMark } from '../marks/SeverityMark'
import { useSetSo } from './useSetSo'
import classes from './LeftOpen.module.css'

/** What the forecast would find with a set-up in place, worst first. */
export function LeftOpen({ shot, setup }: { shot: Shot; setup: Setup | undefined }) {
  const there = useSetSo(shot, setup)
  const findings = useQuery({
    queryKey: ['left-open', there],
    queryFn: ({ signal }) => answered(client.POST('/api/forecast', { body: there!, signal })),
    enabled: there !== undefined,
    placeholderData: keepPreviousData,
    gcTime: 0,
  }).data?.findings
  if (!setup || !findings) return null
  const open = findings.filter(({ severity }) => severity !== 'fine')
  return (
    <section className={classes.left} data-testid="left-open">
      <h2>{open.length === 0 ? 'So set, nothing is left open' : 'So set, this is left'}</h2>
      <ul>
        {open.map((finding) => (
          <li key={finding.id} data-finding={finding.id}>
            <SeverityMark severity={finding.severity} size={14} />
            <p>
              <b>{finding.title}</b> {finding.cause}
            </p>
          </li>
        ))}
      </ul>
    </section>
  )
}
