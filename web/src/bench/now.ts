import type { RefObject } from 'react'
import type { Crop, Layers, Shot, ShotAnswer } from '../api/client'

/** What of the picture is looked at; `solo` is the one light that is alone in it. */
export type View = { layers: Layers; crop: Crop; width: number; solo?: number | undefined }

export type Saving = 'saved' | 'saving' | 'refused' | 'silent'

/** Asks again when the program did not answer. */
export const RETRY_MS = 1500

/** What timers and other callbacks see: state of the last render would be too old while a key is held. */
export type Now = RefObject<{
  shot: Shot
  kept: ShotAnswer
  view: View
  /** What is set was refused, and so was never saved. */
  refused: boolean
  /** Somebody else changed it, and it is not settled yet whose counts. */
  conflict: boolean
  /** Comes when the other controls have followed the one that was turned. */
  followed: Promise<void>
}>

/** What is said of it. */
export const SAVING_WORDS: Record<Saving, string> = {
  saved: 'Saved',
  saving: 'Saving…',
  refused: 'Not saved',
  silent: 'Not reached',
}
