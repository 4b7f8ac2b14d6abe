import type { Movement, Shot } from '../../api/client'

const STILL: Movement = { pan_m_s: 0, direction_deg: 0, shake_deg_s: 0, zoom_share: 0, swing_deg_s: 0 }

/** The shot with another movement of its camera; none is written where it stands still and nothing is said of it. */
export function goesAlong(shot: Shot, change: Partial<Movement>): Shot {
  const to = { ...STILL, ...shot.camera.movement, ...change }
  const still =
    to.pan_m_s === 0 &&
    to.shake_deg_s === 0 &&
    to.zoom_share === 0 &&
    !to.swing_deg_s &&
    to.direction_deg === 0 &&
    to.follows == null &&
    to.wanted == null
  return { ...shot, camera: { ...shot.camera, movement: still ? undefined : to } }
}
