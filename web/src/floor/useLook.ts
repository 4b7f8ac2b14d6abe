import { scaleLinear } from 'd3-scale'
import { useMemo, useState, type PointerEvent, type WheelEvent } from 'react'

type Extent = { wide: number; near: number; far: number }
const MOST = 8

/** How the sheet is looked at: everything on it, or a part of it, larger. */
export function useLook({ wide, near, far }: Extent, width: number, height: number) {
  const [look, setLook] = useState({ times: 1, x: 0, y: 0 })
  const [held, setHeld] = useState<{ x: number; y: number }>()
  const fits = Math.max(0, Math.min(width / wide, height / (far - near))) || 1
  const scale = fits * look.times
  const [midX, midY] = [width / 2 + look.x, height / 2 + look.y]
  // The same while the sheet stays as it is: what stands on it need not be drawn again.
  const x = useMemo(() => {
    const half = (wide * scale) / 2
    return scaleLinear([-wide / 2, wide / 2], [midX - half, midX + half])
  }, [wide, scale, midX])
  const y = useMemo(() => {
    const half = ((far - near) * scale) / 2
    return scaleLinear([far, near], [midY - half, midY + half])
  }, [far, near, scale, midY])
  const zoom = (by: number, at: readonly [number, number] = [width / 2, height / 2]) =>
    setLook((now) => {
      const times = Math.min(Math.max(now.times * by, 1), MOST)
      if (times === 1) return { times, x: 0, y: 0 }
      // What is under the pointer stays there.
      const keep = (middle: number, side: number, place: number) =>
        (middle - (place - side / 2)) * (times / now.times) + place - side / 2
      return { times, x: keep(now.x, width, at[0]), y: keep(now.y, height, at[1]) }
    })
  const ground = {
    onWheel: (event: WheelEvent<SVGRectElement>) => {
      const box = event.currentTarget.getBoundingClientRect()
      zoom(event.deltaY < 0 ? 1.2 : 1 / 1.2, [event.clientX - box.left, event.clientY - box.top])
    },
    onPointerDown: (event: PointerEvent<SVGRectElement>) => {
      event.currentTarget.setPointerCapture(event.pointerId)
      setHeld({ x: event.clientX - look.x, y: event.clientY - look.y })
    },
    onPointerMove: (event: PointerEvent<SVGRectElement>) =>
      held && setLook((now) => ({ ...now, x: event.clientX - held.x, y: event.clientY - held.y })),
    onPointerUp: () => setHeld(undefined),
    onDoubleClick: () => setLook({ times: 1, x: 0, y: 0 }),
  }
  return { x, y, scale, zoom, ground }
}
