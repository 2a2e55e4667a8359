import { useEffect, useRef, type PointerEvent, type RefObject } from 'react'
import { zoomed, type Pixel, type View } from './view'

/** A finger that moved less than this has pressed. */
const STILL_PX = 7

export interface Hands {
  onPointerDown: (event: PointerEvent<SVGSVGElement>) => void
  onPointerMove: (event: PointerEvent<SVGSVGElement>) => void
  onPointerUp: (event: PointerEvent<SVGSVGElement>) => void
  onPointerCancel: (event: PointerEvent<SVGSVGElement>) => void
}

export interface Handled {
  look: (change: (view: View) => View) => void
  /** Takes hold of something under the pointer: it is then moved instead of the sheet. */
  grab: (pixel: Pixel, touch: boolean) => boolean
  drag: (pixel: Pixel) => void
  drop: (moved: boolean) => void
  press: (pixel: Pixel, touch: boolean) => void
}

/** Pen, finger and mouse: one moves the sheet or what it took hold of, two come nearer, a wheel too. */
export function usePan(frame: RefObject<SVGSVGElement | null>, handled: Handled): Hands {
  const now = useRef(handled)
  const down = useRef(new Map<number, Pixel>())
  const start = useRef<{ pixel: Pixel; grabbed: boolean; moved: boolean; pinched: boolean } | null>(null)
  useEffect(() => {
    now.current = handled
  })
  const pixelOf = (event: { clientX: number; clientY: number }): Pixel => {
    const box = frame.current?.getBoundingClientRect()
    return { x: event.clientX - (box?.left ?? 0), y: event.clientY - (box?.top ?? 0) }
  }
  useEffect(() => {
    const element = frame.current
    if (element === null) return
    const handleWheel = (event: WheelEvent) => {
      event.preventDefault()
      const pixel = pixelOf(event)
      now.current.look((view) => zoomed(view, Math.exp(-event.deltaY * 0.0016), pixel))
    }
    element.addEventListener('wheel', handleWheel, { passive: false })
    return () => element.removeEventListener('wheel', handleWheel)
  })
  const up = (event: PointerEvent<SVGSVGElement>, pressed: boolean) => {
    down.current.delete(event.pointerId)
    const began = start.current
    if (began === null || down.current.size > 0) return
    start.current = null
    if (began.grabbed) now.current.drop(began.moved && pressed)
    else if (pressed && !began.moved && !began.pinched) {
      now.current.press(pixelOf(event), event.pointerType !== 'mouse')
    }
  }
  return {
    onPointerDown: (event) => {
      if (event.button !== 0) return
      event.currentTarget.setPointerCapture(event.pointerId)
      const pixel = pixelOf(event)
      down.current.set(event.pointerId, pixel)
      if (down.current.size === 1) {
        const grabbed = now.current.grab(pixel, event.pointerType !== 'mouse')
        start.current = { pixel, grabbed, moved: false, pinched: false }
      } else if (start.current !== null) {
        if (start.current.grabbed) now.current.drop(false)
        start.current = { ...start.current, grabbed: false, pinched: true }
      }
    },
    onPointerMove: (event) => {
      const before = down.current.get(event.pointerId)
      const began = start.current
      if (before === undefined || began === null) return
      const pixel = pixelOf(event)
      const { look, drag } = now.current
      if (down.current.size === 2) {
        const other = [...down.current].find(([id]) => id !== event.pointerId)?.[1]
        if (other !== undefined) {
          const was = Math.hypot(before.x - other.x, before.y - other.y)
          const is = Math.hypot(pixel.x - other.x, pixel.y - other.y)
          const middle = { x: (pixel.x + other.x) / 2, y: (pixel.y + other.y) / 2 }
          look((view) => {
            const nearer = zoomed(view, is / Math.max(was, 1), middle)
            return {
              ...nearer,
              x: nearer.x + (pixel.x - before.x) / 2,
              y: nearer.y + (pixel.y - before.y) / 2,
            }
          })
        }
        down.current.set(event.pointerId, pixel)
        return
      }
      if (!began.moved && Math.hypot(pixel.x - began.pixel.x, pixel.y - began.pixel.y) < STILL_PX) return
      began.moved = true
      if (began.grabbed) drag(pixel)
      else look((view) => ({ ...view, x: view.x + pixel.x - before.x, y: view.y + pixel.y - before.y }))
      down.current.set(event.pointerId, pixel)
    },
    onPointerUp: (event) => up(event, true),
    onPointerCancel: (event) => up(event, false),
  }
}
