import type { Copy, Inside } from '../api/client'

/** Why a copy was made, as it is said. */
export const WHY: Record<Copy['why'], string> = {
  daily: 'of the day',
  update: 'before an update',
  return: 'before a copy came back',
  asked: 'you asked for it',
  brought: 'from elsewhere',
}

/** How a shot of a copy stands against the one there is now. */
export const NOW: Record<NonNullable<Inside['shots'][number]['now']>, string> = {
  same: 'as it is now',
  differs: 'different now',
  gone: 'not there now',
}

const DAY = new Intl.DateTimeFormat('en-GB', {
  weekday: 'short',
  day: 'numeric',
  month: 'short',
  hour: '2-digit',
  minute: '2-digit',
})

/** A moment of this machine's own time. */
export const day = (moment: string) => DAY.format(new Date(moment))

export const size = (bytes: number) =>
  bytes < 1e6 ? `${Math.ceil(bytes / 1e3)} kB` : `${(bytes / 1e6).toFixed(1)} MB`
