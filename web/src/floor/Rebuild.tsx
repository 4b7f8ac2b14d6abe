import { memo } from 'react'
import type { Caution, FloorAnswer } from '../api/client'
import { length } from '../words/figures'
import classes from '../theme/paper.module.css'

type Props = { seen: FloorAnswer; cautions: Caution[] | undefined }

/** The set on paper, to build it again: a row a light, by tape, by dial and by meter. */
export const Rebuild = memo(function Rebuild({ seen, cautions }: Props) {
  const { shot } = seen
  return (
    <section className={classes.sheet} aria-hidden="true" data-testid="rebuild">
      <p>
        {shot.place}. {seen.settings_says}; {seen.camera_says}. Background {length(seen.behind_m)} behind the
        mark
        {shot.sheet && `, sheet ${length(shot.sheet.width_m)} × ${length(shot.sheet.height_m)}`}.
        {seen.reads && ` All together at the mark, facing the camera: ${seen.reads}.`}
      </p>
      <table>
        <thead>
          <tr>
            <th>Light</th>
            <th>Unit · in front</th>
            <th>Group</th>
            <th>Power</th>
            <th>To mark</th>
            <th>To camera</th>
            <th>Height</th>
            <th>Direction</th>
            <th>Meter alone</th>
          </tr>
        </thead>
        <tbody>
          {seen.lights.map(
            (light, index) =>
              light.on && (
                <tr key={index}>
                  <td>{light.label}</td>
                  <td>
                    {light.unit} · {light.front_says}
                    {shot.lights[index]!.boom_m != null && ` · boom ${length(shot.lights[index]!.boom_m!)}`}
                    {light.flag && ` · flag ${length(light.flag.width_m)} × ${length(light.flag.height_m)}`}
                  </td>
                  <td>{light.group_says}</td>
                  <td>{light.power_says}</td>
                  {light.on_camera ? (
                    <td colSpan={4}>sits on the camera</td>
                  ) : (
                    <>
                      <td>{length(light.to_mark_m)}</td>
                      <td>
                        {length(light.to_camera_m)}, {light.right ? 'right' : 'left'}
                      </td>
                      <td>{length(light.at.z_m)}</td>
                      <td>
                        {light.clock} · down {Math.round(light.tilt_down_deg)}°
                        {light.looks_says && `, ${light.looks_says}`}
                      </td>
                    </>
                  )}
                  <td>{light.reads ?? 'nothing'}</td>
                </tr>
              ),
          )}
          {seen.lamps.map(
            ({ name, on, front_says, turned_up_says, distance_m, stands }, index) =>
              on && (
                <tr key={`lamp ${index}`}>
                  <td>Lamp</td>
                  <td>
                    {name}
                    {front_says && ` · ${front_says}`}
                  </td>
                  <td />
                  <td>{turned_up_says}</td>
                  {stands ? (
                    <>
                      <td>{length(stands.to_mark_m)}</td>
                      <td>
                        {length(stands.to_camera_m)}, {stands.right ? 'right' : 'left'}
                      </td>
                      <td>{length(stands.at.z_m)}</td>
                      <td>
                        {stands.clock} · down {Math.round(stands.tilt_down_deg)}°
                      </td>
                    </>
                  ) : (
                    <td colSpan={4}>{length(distance_m)} from the subject</td>
                  )}
                  <td>burns</td>
                </tr>
              ),
          )}
        </tbody>
      </table>
      {seen.lights.some((light) => light.ballast_kg) && (
        <p>
          Ballast in the gust that was entered, an estimate:{' '}
          {seen.lights
            .filter((light) => light.ballast_kg)
            .map(
              (light) =>
                `${light.label} ${light.take_down ? 'take it down' : `${Math.ceil(light.ballast_kg!)} kg`}`,
            )
            .join(', ')}
          . The stand’s manual, the venue and whoever rigs decide.
        </p>
      )}
      {cautions?.map((caution) => (
        <p key={caution.id}>
          <b>{caution.title}.</b> {caution.says}
        </p>
      ))}
    </section>
  )
})
