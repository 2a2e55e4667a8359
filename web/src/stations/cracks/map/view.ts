import type { Schemas } from '../../../api/client'

export type At = Schemas['At']
export type Frame = Schemas['Frame']

/** How a face is looked at: pixels to the millimetre, and where its origin lies on the screen. */
export interface View {
  scale: number
  x: number
  y: number
}

export interface Pixel {
  x: number
  y: number
}

const NEAREST = 60
const FARTHEST = 0.02

export const at = (x_mm: number, y_mm: number): At => ({ x_mm, y_mm })

export const toPixel = (view: View, place: At): Pixel => ({
  x: view.x + place.x_mm * view.scale,
  y: view.y + place.y_mm * view.scale,
})

export const toPlace = (view: View, pixel: Pixel): At =>
  at((pixel.x - view.x) / view.scale, (pixel.y - view.y) / view.scale)

/** All of a frame, in the middle of what there is for it. */
export function fitted(frame: Frame, width: number, height: number): View {
  const wide = Math.max(frame.right_mm - frame.left_mm, 1)
  const high = Math.max(frame.bottom_mm - frame.top_mm, 1)
  const scale = Math.min(width / wide, height / high)
  return {
    scale,
    x: (width - wide * scale) / 2 - frame.left_mm * scale,
    y: (height - high * scale) / 2 - frame.top_mm * scale,
  }
}

/** Nearer or farther by so many times, with one place kept where it is. */
export function zoomed(view: View, by: number, about: Pixel): View {
  const scale = Math.min(NEAREST, Math.max(FARTHEST, view.scale * by))
  const place = toPlace(view, about)
  return { scale, x: about.x - place.x_mm * scale, y: about.y - place.y_mm * scale }
}

export const distance = (a: At, b: At): number => Math.hypot(a.x_mm - b.x_mm, a.y_mm - b.y_mm)

/** To a hundredth of a millimetre: nobody draws closer. */
export const rounded = ({ x_mm, y_mm }: At): At =>
  at(Math.round(x_mm * 100) / 100, Math.round(y_mm * 100) / 100)

/** Half-way along a line, and the direction across it; nothing for a line without length. */
export function halfWay(points: readonly At[]): { place: At; across: Pixel } | null {
  const steps = points.slice(1).map((to, index) => ({ from: points[index] ?? to, to }))
  let left = steps.reduce((sum, { from, to }) => sum + distance(from, to), 0) / 2
  for (const { from, to } of steps) {
    const long = distance(from, to)
    if (long > 0 && left <= long) {
      const [dx, dy] = [(to.x_mm - from.x_mm) / long, (to.y_mm - from.y_mm) / long]
      // Always above a level line, and right of an upright one.
      const side = dx > 0 || (dx === 0 && dy < 0) ? 1 : -1
      return {
        place: at(from.x_mm + dx * left, from.y_mm + dy * left),
        across: { x: side * dy, y: -side * dx },
      }
    }
    left -= long
  }
  return null
}

export const pathOf = (points: readonly At[], closed = false): string =>
  points.map(({ x_mm, y_mm }, index) => `${index === 0 ? 'M' : 'L'}${x_mm} ${y_mm}`).join('') +
  (closed ? 'Z' : '')
