import { Button, Checkbox, Group, Stack, Text, UnstyledButton } from '@mantine/core'
import { useState } from 'react'
import { BaySheet } from './Bay'
import type { Around, Caution, Shot } from '../api/client'
import classes from './Findings.module.css'

const AROUND: Record<Around, string> = {
  outdoors: 'open air',
  water: 'water, rain',
  spectators: 'spectators',
  competition: 'a competition',
  smoke_or_fire: 'smoke, fire, powder',
  animals_or_infants: 'animals, infants',
  lasers: 'lasers',
  slippery_floor: 'a slippery floor',
  height: 'ladders, rigs',
}

type Props = {
  around: Shot['around']
  acknowledged: Shot['acknowledged']
  cautions: Caution[] | undefined
  onChange: (seen: Pick<Partial<Shot>, 'around' | 'acknowledged'>) => void
}

/** What can hurt someone on this shot: said once, acknowledged once, kept with the shot. */
export function Cautions({ around = [], acknowledged = [], cautions, onChange }: Props) {
  const [opened, setOpened] = useState(false)
  const open = cautions?.filter((caution) => !caution.acknowledged) ?? []
  return (
    <>
      <UnstyledButton
        className={classes.cautions}
        data-choose="cautions"
        data-open={open.length > 0 || undefined}
        onClick={() => setOpened(true)}
      >
        <svg width="14" height="14" viewBox="0 0 14 14" aria-hidden="true">
          <path
            d="M7 1 13 12.5H1Z"
            fill="none"
            stroke="currentColor"
            strokeWidth="1.6"
            strokeLinejoin="round"
          />
          <path d="M7 5v3.6M7 10.2v1" stroke="currentColor" strokeWidth="1.6" />
        </svg>
        <span>
          {open.length > 0 ? (
            <>
              {open.length === 1 ? 'Caution' : `${open.length} cautions`}: {open[0]!.title.toLowerCase()}
            </>
          ) : (
            <>{acknowledged.length > 0 ? 'Cautions seen' : 'What is around?'}</>
          )}
        </span>
      </UnstyledButton>
      {opened && (
        <BaySheet title="Cautions for this shot" onClose={() => setOpened(false)}>
          <Stack gap="sm" data-testid="cautions">
            <Group gap="sm">
              <Text size="sm">Around:</Text>
              {(Object.keys(AROUND) as Around[]).map((one) => (
                <Checkbox
                  key={one}
                  size="xs"
                  label={AROUND[one]}
                  checked={around.includes(one)}
                  onChange={(event) =>
                    onChange({
                      around: event.currentTarget.checked
                        ? [...around, one]
                        : around.filter((other) => other !== one),
                    })
                  }
                />
              ))}
            </Group>
            {cautions?.length === 0 && <Text size="sm">This plan calls for none that is known here.</Text>}
            {cautions?.map((caution) => (
              <div
                key={caution.id}
                className={classes.caution}
                data-caution={caution.id}
                data-seen={caution.acknowledged || undefined}
              >
                <Group justify="space-between" wrap="nowrap">
                  <b>{caution.title}</b>
                  <Button
                    size="compact-xs"
                    variant={caution.acknowledged ? 'default' : 'filled'}
                    onClick={() =>
                      onChange({
                        acknowledged: caution.acknowledged
                          ? acknowledged.filter((id) => id !== caution.id)
                          : [...acknowledged, caution.id],
                      })
                    }
                  >
                    {caution.acknowledged ? 'Seen' : 'I have seen to it'}
                  </Button>
                </Group>
                <Text size="sm">
                  {caution.because} {caution.says}
                </Text>
              </div>
            ))}
          </Stack>
        </BaySheet>
      )}
    </>
  )
}
