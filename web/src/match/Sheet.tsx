import type { MatchAnswer, Shot } from '../api/client'
import { pixels } from '../words/figures'
import classes from '../theme/paper.module.css'

/** The answer on paper: what was asked in a line, then a row a set-up. */
export function Sheet({ shot, answer }: { shot: Shot; answer: MatchAnswer }) {
  const { wish, rows, nearest } = answer
  const lines = [
    ...rows.map((row) => ({ row, gives: '' })),
    ...nearest.map((near) => ({
      row: near.row,
      gives: `${near.price_stops.toFixed(1)} stops: ${near.gives.map((give) => give.said).join(' and ')}`,
    })),
  ]
  return (
    <section className={classes.sheet} aria-hidden="true" data-testid="sheet">
      <h1>{shot.title}</h1>
      <p>
        {shot.place}. Asked: ISO {wish.iso_min} to {wish.iso_max}, {wish.slowest} to {wish.fastest},{' '}
        {wish.nearest_m == null ? 'out of the frame' : `${wish.nearest_m} m`} to {wish.farthest_m} m,{' '}
        {(wish.blur ?? []).map(({ part, px }) => `${part} ${pixels(px)}`).join(', ')}; {wish.frames} at{' '}
        {wish.frames_per_second}/s.{' '}
        {nearest.length > 0 && 'Nothing does all of this; the nearest, with what would have to give.'}
      </p>
      <table>
        <thead>
          <tr>
            <th>No.</th>
            <th>Units</th>
            <th>Power · distance · in front</th>
            <th>Camera</th>
            <th>Freezes</th>
            <th>Least to spare</th>
            {nearest.length > 0 && <th>What has to give</th>}
          </tr>
        </thead>
        <tbody>
          {lines.map(({ row, gives }, index) => (
            <tr key={index}>
              <td>{index + 1}</td>
              <th scope="row">
                {row.title}
                {row.weight_kg != null && ` · ${row.weight_kg.toFixed(1)} kg`}
              </th>
              <td>{row.how}</td>
              <td>
                {row.exposure} · {row.sync}
              </td>
              <td>
                {row.freeze}
                {row.blur_px != null && `, ${pixels(row.blur_px)}`}
              </td>
              <td>
                {row.margins[0]?.label}: {row.margins[0]?.said}
              </td>
              {nearest.length > 0 && <td>{gives}</td>}
            </tr>
          ))}
        </tbody>
      </table>
      <p>
        A forecast from figures: meter, and take a test frame. Weigh down stands, secure what hangs overhead,
        and follow the venue, local code and the makers' manuals.
      </p>
    </section>
  )
}
