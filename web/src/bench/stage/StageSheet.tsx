import { ActionIcon, Button, SegmentedControl, Switch, Tooltip } from '@mantine/core'
import { useState } from 'react'
import type { Composition, Person, Prop, Shot, StageAnswer } from '../../api/client'
import { Figure } from '../../controls/Figure'
import { BaySheet } from '../Bay'
import { OwnPicture } from './OwnPicture'
import { PictureChoice } from './PictureChoice'
import { ViewChoice } from './ViewChoice'
import { PLACES } from '../../marks/places'
import { BUILDS, HAIRS, HELD, OUTFITS, POSES, STANDING } from './words'
import classes from './StageSheet.module.css'

const TABS = [
  { value: 'pose', label: 'Pose' },
  { value: 'looks', label: 'Clothes' },
  { value: 'things', label: 'Things' },
  { value: 'place', label: 'Place' },
  { value: 'frame', label: 'Camera' },
] as const
type Tab = (typeof TABS)[number]['value']

type Props = {
  shot: Shot
  staged: StageAnswer
  /** Who is in hand. */
  who: number
  onWho: (who: number) => void
  refused: (field: string) => string | undefined
  onChange: (shot: Shot) => void
  onClose: () => void
}

/** Who and what stands in the frame, where, and how the camera looks at it. */
export function StageSheet({ shot, staged, who, onWho, refused, onChange, onClose }: Props) {
  const [tab, setTab] = useState<Tab>('pose')
  const stage = shot.stage ?? staged.composition
  const people = stage.people ?? []
  const things = stage.things ?? []
  const person = people[who]
  const put = (to: Partial<Composition>) => onChange({ ...shot, stage: { ...stage, ...to } })
  const dress = (to: Partial<Person>) =>
    put({ people: people.map((one, index) => (index === who ? { ...one, ...to } : one)) })
  const add = () => {
    const last = people.at(-1)
    put({ people: [...people, { ...(last ?? staged.newcomer), right_m: (last?.right_m ?? -0.7) + 0.7 }] })
    onWho(people.length)
  }
  const remove = () => {
    put({ people: people.filter((_, index) => index !== who) })
    onWho(Math.max(0, who - 1))
  }
  const toggle = <T,>(list: readonly T[], one: T): T[] =>
    list.includes(one) ? list.filter((other) => other !== one) : [...list, one]
  const at = (name: string) => refused(`stage.people[${who}].${name}`)

  return (
    <BaySheet title="In the frame" onClose={onClose}>
      <div className={classes.stage}>
        <aside className={classes.who}>
          <SegmentedControl
            size="xs"
            radius="xl"
            aria-label="What to choose"
            value={tab}
            onChange={(tab) => setTab(tab as Tab)}
            data={[...TABS]}
          />
          <div className={classes.people} role="group" aria-label="People">
            {people.map((_, index) => (
              <button
                key={index}
                type="button"
                className={classes.person}
                aria-pressed={index === who}
                aria-label={`Person ${index + 1}`}
                onClick={() => onWho(index)}
              >
                {index + 1}
              </button>
            ))}
            <Tooltip label="One more person">
              <ActionIcon variant="default" radius="xl" size="md" aria-label="One more person" onClick={add}>
                +
              </ActionIcon>
            </Tooltip>
            {person && (
              <Button size="compact-xs" variant="subtle" color="gray" onClick={remove}>
                Take away
              </Button>
            )}
          </div>
          {person && (
            <div className={classes.fields}>
              <Figure
                label="To the right"
                suffix=" m"
                step={0.1}
                value={person.right_m}
                error={at('right_m')}
                onChange={(right_m) => dress({ right_m })}
              />
              <Figure
                label="Farther away"
                suffix=" m"
                step={0.1}
                value={person.away_m}
                error={at('away_m')}
                onChange={(away_m) => dress({ away_m })}
              />
              <Figure
                label="Turned right"
                suffix="°"
                step={15}
                value={person.turned_deg}
                error={at('turned_deg')}
                onChange={(turned_deg) => dress({ turned_deg })}
              />
              <Figure
                label="Lifted"
                suffix=" m"
                step={0.05}
                value={person.up_m}
                error={at('up_m')}
                onChange={(up_m) => dress({ up_m })}
              />
              <Switch
                size="xs"
                label="Mirrored"
                checked={person.mirrored ?? false}
                onChange={(event) => dress({ mirrored: event.currentTarget.checked })}
              />
              <Switch
                size="xs"
                label="Stands by"
                checked={person.stands_by ?? false}
                onChange={(event) => dress({ stands_by: event.currentTarget.checked })}
              />
            </div>
          )}
        </aside>
        <div className={classes.choices}>
          {tab === 'pose' &&
            (person ? (
              <PictureChoice
                of="pose"
                words={POSES}
                chosen={[person.pose]}
                onChoose={(pose) => dress({ pose })}
              />
            ) : (
              <p className={classes.nobody}>Nobody is there yet.</p>
            ))}
          {tab === 'looks' && person && (
            <>
              <PictureChoice
                of="outfit"
                words={OUTFITS}
                chosen={[person.outfit ?? 'sport']}
                onChoose={(outfit) => dress({ outfit })}
              />
              <PictureChoice
                of="hair"
                words={HAIRS}
                chosen={[person.hair ?? 'short']}
                onChoose={(hair) => dress({ hair })}
              />
              <PictureChoice
                of="build"
                words={BUILDS}
                chosen={[person.build ?? 'usual']}
                onChoose={(build) => dress({ build })}
              />
              <div className={classes.tones}>
                <Figure
                  label="Skin reflects"
                  kind="share"
                  step={0.02}
                  value={person.skin}
                  error={at('skin')}
                  onChange={(skin) => dress({ skin })}
                />
                <Figure
                  label="Cloth reflects"
                  kind="share"
                  step={0.02}
                  value={person.cloth}
                  error={at('cloth')}
                  onChange={(cloth) => dress({ cloth })}
                />
                <Figure
                  label="Hair reflects"
                  kind="share"
                  step={0.02}
                  value={person.hair_tone}
                  error={at('hair_tone')}
                  onChange={(hair_tone) => dress({ hair_tone })}
                />
                <Figure
                  label="Hue of the cloth"
                  suffix="°"
                  step={10}
                  value={person.cloth_hue_deg ?? undefined}
                  error={at('cloth_hue_deg')}
                  onChange={(cloth_hue_deg) => dress({ cloth_hue_deg })}
                />
                <SegmentedControl
                  size="xs"
                  aria-label="How it shines"
                  value={person.finish ?? 'matt'}
                  onChange={(finish) => dress({ finish: finish as Person['finish'] })}
                  data={[
                    { value: 'matt', label: 'Matt' },
                    { value: 'satin', label: 'Satin' },
                    { value: 'wet', label: 'Wet' },
                    { value: 'sequins', label: 'Sequins' },
                  ]}
                />
              </div>
            </>
          )}
          {tab === 'things' && (
            <>
              {person && (
                <PictureChoice
                  of="prop"
                  words={HELD}
                  chosen={person.with ?? []}
                  onChoose={(prop: Prop) => dress({ with: toggle(person.with ?? [], prop) })}
                />
              )}
              <PictureChoice
                of="prop"
                words={STANDING}
                chosen={things.map((thing) => thing.what)}
                onChoose={(what: Prop) =>
                  put({
                    things: things.some((thing) => thing.what === what)
                      ? things.filter((thing) => thing.what !== what)
                      : [...things, { what, right_m: 0, away_m: 0, up_m: 0, size: 1, turned_deg: 0 }],
                  })
                }
              />
            </>
          )}
          {tab === 'place' && (
            <PictureChoice
              of="place"
              words={PLACES}
              chosen={stage.picture ? [] : [stage.place]}
              onChoose={(place) => put({ place, picture: null })}
            />
          )}
          {tab === 'frame' && (
            <div className={classes.camera}>
              <ViewChoice shot={shot} stage={stage} onChange={put} />
              <div className={classes.fields}>
                <Figure
                  label="Height of the lens"
                  suffix=" m"
                  step={0.1}
                  value={stage.camera_height_m}
                  error={refused('stage.camera_height_m')}
                  onChange={(camera_height_m) => put({ camera_height_m })}
                />
                <Figure
                  label="Looks at a height of"
                  suffix=" m"
                  step={0.1}
                  value={stage.aim_height_m}
                  error={refused('stage.aim_height_m')}
                  onChange={(aim_height_m) => put({ aim_height_m })}
                />
              </div>
              <OwnPicture
                picture={stage.picture ?? undefined}
                onChange={(picture) => put({ picture: picture ?? null })}
              />
            </div>
          )}
        </div>
      </div>
    </BaySheet>
  )
}
