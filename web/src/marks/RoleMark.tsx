import type { Flash } from '../api/client'

type Role = NonNullable<Flash['role']>

export const ROLE_WORDS: Record<Role, string> = {
  key: 'key',
  fill: 'fill',
  rim: 'rim',
  backdrop: 'backdrop',
  in_set: 'in the set',
}

/** Seen from above: a head, and which side of it the light is on. */
const SHAPES: Record<Role, React.ReactNode> = {
  key: (
    <>
      <circle cx="7" cy="7" r="4.6" />
    </>
  ),
  fill: <circle cx="7" cy="7" r="4.1" fill="none" strokeWidth="1.8" />,
  rim: <path d="M2.6 6.4a4.4 4.4 0 0 1 8.8 0" fill="none" strokeWidth="2.4" strokeLinecap="round" />,
  backdrop: <path d="M2 3.2h10M4.2 7h5.6M5.6 10.6h2.8" fill="none" strokeWidth="2" strokeLinecap="round" />,
  in_set: <path d="M7 2.2 8.5 5.6 12 7 8.5 8.4 7 11.8 5.5 8.4 2 7 5.5 5.6Z" />,
}

/** What a light is there for: disc = key, ring = fill, arc = rim, steps = backdrop, star = in the set. */
export function RoleMark({ role }: { role: Role }) {
  return (
    <svg
      width="14"
      height="14"
      viewBox="0 0 14 14"
      aria-hidden="true"
      fill="currentColor"
      stroke="currentColor"
      strokeWidth="0"
    >
      {SHAPES[role]}
    </svg>
  )
}
