type Props = { rows: readonly (readonly [string, string])[]; className: string | undefined }

/** Figures with their names, one a line. */
export function FigureRows({ rows, className }: Props) {
  return (
    <dl className={className}>
      {rows.map(([name, value]) => (
        <div key={name}>
          <dt>{name}</dt>
          <dd className="mono">{value}</dd>
        </div>
      ))}
    </dl>
  )
}
