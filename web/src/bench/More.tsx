import { UnstyledButton } from '@mantine/core'
import { lazy, Suspense, type ReactNode } from 'react'
import { Opened } from './Bay'
import classes from './Controls.module.css'

// Fetched when they are first opened.
export const CameraMoves = lazy(() => import('./CameraMoves').then((all) => ({ default: all.CameraMoves })))
export const BeforeLens = lazy(() => import('./BeforeLens').then((all) => ({ default: all.BeforeLens })))
export const Tones = lazy(() => import('./Tones').then((all) => ({ default: all.Tones })))
export const Burst = lazy(() => import('./Burst').then((all) => ({ default: all.Burst })))
export const Targets = lazy(() => import('./Targets').then((all) => ({ default: all.Targets })))
export const Lamps = lazy(() => import('./Lamps').then((all) => ({ default: all.Lamps })))

type Props = {
  word: ReactNode
  choose: string
  side: 'left' | 'right'
  width?: number
  children: ReactNode
}

/** A small button under a block, with what is turned more rarely behind it. */
export function More({ word, choose, side, width = 380, children }: Props) {
  return (
    <Opened width={width} side={side}>
      <Opened.Target>
        <UnstyledButton className={classes.moreButton} data-choose={choose}>
          {word}
        </UnstyledButton>
      </Opened.Target>
      <Opened.Dropdown>
        <Suspense fallback={null}>{children}</Suspense>
      </Opened.Dropdown>
    </Opened>
  )
}
