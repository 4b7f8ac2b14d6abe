import { Button, Checkbox, Popover, SegmentedControl, Stack } from '@mantine/core'
import { memo } from 'react'
import { Figure } from '../controls/Figure'
import { SMALL } from './small'
import { LAYERS, type Layer } from './layers'
import type { Place } from './Measuring'
import classes from './Floor.module.css'

export type Told = 'light' | 'all' | 'ambient'

/** Whose light is told over the area. */
export const WhoseLight = memo(function WhoseLight({
  of,
  label,
  onOf,
}: {
  of: Told
  label: string
  onOf: (of: Told) => void
}) {
  return (
    <SegmentedControl
      size="xs"
      radius="xl"
      aria-label="Light that is told"
      value={of}
      onChange={(to) => onOf(to as Told)}
      data={[
        { value: 'all', label: 'All meant for it' },
        { value: 'light', label: `${label} alone` },
        { value: 'ambient', label: 'Steady light' },
      ]}
    />
  )
})

type Props = {
  ends: Place[] | undefined
  layers: Layer[]
  height: number
  onEnds: (ends: Place[] | undefined) => void
  onLayers: (layers: Layer[]) => void
  onHeight: (height: number) => void
}

/** The tape, what is drawn, and the height that is told. */
export const FloorTools = memo(function FloorTools({
  ends,
  layers,
  height,
  onEnds,
  onLayers,
  onHeight,
}: Props) {
  return (
    <>
      <Button
        {...SMALL}
        aria-pressed={!!ends}
        variant={ends ? 'filled' : 'default'}
        onClick={() => onEnds(ends ? undefined : [])}
      >
        Measure
      </Button>
      <Popover position="bottom-end" withinPortal={false}>
        <Popover.Target>
          <Button {...SMALL}>Layers</Button>
        </Popover.Target>
        <Popover.Dropdown>
          <Checkbox.Group value={layers} onChange={(on) => onLayers(on as Layer[])} aria-label="Layers">
            <Stack gap={6}>
              {LAYERS.map(({ value, label }) => (
                <Checkbox key={value} size="xs" value={value} label={label} />
              ))}
            </Stack>
          </Checkbox.Group>
        </Popover.Dropdown>
      </Popover>
      <Figure
        w={80}
        aria-label="Height that is told"
        suffix=" m"
        step={0.1}
        value={height}
        onChange={onHeight}
      />
      <span className={classes.told}>up</span>
    </>
  )
})

const TABS = ['Light', 'Lamps', 'Area', 'Background', 'Way', 'Sun, room'] as const
export type Tab = (typeof TABS)[number]

/** Which side of the set is looked into. */
export const WhatOfIt = memo(function WhatOfIt({
  tab,
  lamps,
  onTab,
}: {
  tab: Tab
  /** Whether there are any. */
  lamps: boolean
  onTab: (tab: Tab) => void
}) {
  return (
    <SegmentedControl
      className={classes.tabs}
      size="xs"
      radius="xl"
      aria-label="What of it"
      data={TABS.filter((of) => of !== 'Lamps' || lamps)}
      value={tab}
      onChange={(to) => onTab(to as Tab)}
    />
  )
})
