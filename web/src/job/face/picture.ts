import type { Schemas } from '../../api/client'
import { heatColour, type Theme } from '../../quantity/heat-colour'

export type At = Schemas['At']
/** Left, top, right, bottom in mm. */
export type Frame = readonly [number, number, number, number]

/** Cells of a picture as an image, one point a cell: it is drawn larger and smooth. */
export function imageOf(celsius: readonly number[], columns: number, theme: Theme): string {
  const canvas = document.createElement('canvas')
  canvas.width = columns
  canvas.height = Math.ceil(celsius.length / columns)
  const pen = canvas.getContext('2d')
  if (pen === null) return ''
  celsius.forEach((at, cell) => {
    pen.fillStyle = heatColour(at, theme)
    pen.fillRect(cell % columns, Math.floor(cell / columns), 1, 1)
  })
  return canvas.toDataURL()
}

/** Outlines as one path: what is cut out is left out where it is filled by the even-odd rule. */
export const pathOf = (rims: readonly (readonly At[])[]): string =>
  rims.map((rim) => `M${rim.map((at) => `${at.x_mm} ${at.y_mm}`).join('L')}Z`).join('')

/** Where on a face a place of the screen lies. */
export function placeAt(
  box: { left: number; top: number; width: number; height: number },
  pixel: { x: number; y: number },
  [left, top, right, bottom]: Frame,
): At {
  const round = (mm: number) => Math.round(mm * 10) / 10
  return {
    x_mm: round(left + ((pixel.x - box.left) / box.width) * (right - left)),
    y_mm: round(top + ((pixel.y - box.top) / box.height) * (bottom - top)),
  }
}

/** A place moved by an arrow key, kept within the frame; nothing for another key. */
export function moved(at: At, key: string, step: number, [left, top, right, bottom]: Frame): At | null {
  const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[key]
  if (by === undefined) return null
  const [x, y] = by as [number, number]
  return {
    x_mm: Math.min(right, Math.max(left, at.x_mm + x * step)),
    y_mm: Math.min(bottom, Math.max(top, at.y_mm + y * step)),
  }
}

/** Pixels that a letter of the picture is wide, and words are high with room round them. */
const LETTER = 9
const HIGH = 24

/** Words that stand in nobody's way: words at tips and at the flame come first, and run to either side of their place. */
export function withRoom<T extends { at: At; words: string }>(
  places: readonly T[],
  taken: readonly { at: At; words: string }[],
  px: number,
): T[] {
  const free = (place: T, others: readonly { at: At; words: string }[]) =>
    others.every(({ at, words }) => {
      const wide = (words.length + place.words.length / 2) * LETTER + 30
      return Math.abs(at.x_mm - place.at.x_mm) > wide * px || Math.abs(at.y_mm - place.at.y_mm) > HIGH * px
    })
  return places.reduce<T[]>(
    (shown, place) => (free(place, [...taken, ...shown]) ? [...shown, place] : shown),
    [],
  )
}

/** Which moment comes nearest to what was read; nothing where nothing was. */
export function nowAmong(moments: readonly { coldest_c: number }[], read_c: number | null): number | null {
  if (read_c === null || moments.length === 0) return null
  const off = (at: number) => Math.abs((moments[at]?.coldest_c ?? Infinity) - read_c)
  return moments.reduce((best, _, at) => (off(at) < off(best) ? at : best), 0)
}
