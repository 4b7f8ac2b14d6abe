/** Three streaks that end in a pebble. */
export function Mark({ width = 48 }: { width?: number }) {
  return (
    <svg width={width} height={(width * 28) / 56} viewBox="0 0 56 28" role="img" aria-label="Dash Pebble">
      <g fill="none" stroke="var(--dp-movement)" strokeWidth="2.6" strokeLinecap="round">
        <path d="M8 8h15" opacity=".6" />
        <path d="M2 14h19" />
        <path d="M10 20h13" opacity=".6" />
      </g>
      <path d="M26 14c0-7 6-11 13-11s15 4 15 11-7 11-14 11-14-4-14-11Z" fill="var(--dp-flash)" />
    </svg>
  )
}
