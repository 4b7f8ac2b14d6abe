/** A lock, open or closed: told apart by shape. */
export function Lock({ closed, size = 12 }: { closed: boolean; size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 12 12" aria-hidden="true">
      <rect
        x="2"
        y="5.5"
        width="8"
        height="5.5"
        rx="1.6"
        fill={closed ? 'currentcolor' : 'none'}
        stroke="currentcolor"
        strokeWidth="1.2"
      />
      <path
        d={closed ? 'M3.8 5.5V3.6a2.2 2.2 0 0 1 4.4 0V5.5' : 'M3.8 5.5V3.2a2.2 2.2 0 0 1 4.3 -.7'}
        fill="none"
        stroke="currentcolor"
        strokeWidth="1.2"
        strokeLinecap="round"
      />
    </svg>
  )
}
