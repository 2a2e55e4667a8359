import { overlap, placed, ticksApart, widthOf, type Box, type Tick } from './words'

/** A word that stands near a place of a heat line. */
export interface LineWord {
  key: string
  box: Box
}

/**
 * Words of a heat line, the more important first: each near its place, inside the frame, on nothing that is
 * there and on none of the others. One without room is left out.
 */
export function lineWords(
  frame: Box,
  there: readonly Box[],
  wanted: readonly LineWord[],
): ReadonlyMap<string, Box> {
  const laid = new Map<string, Box>()
  for (const { key, box } of wanted) {
    const found = placed(box, frame, [...there, ...laid.values()])
    if (found !== null) laid.set(key, found)
  }
  return laid
}

/** So far apart a curve is looked at, and so thick it is. */
const ALONG = 8
const THICK = 6

/** A curve as boxes along it: no word lies on one. From left to right. */
export function alongCurve(curve: readonly (readonly [x: number, y: number])[]): Box[] {
  const boxes: Box[] = []
  let next = -Infinity
  for (const [at, [x, y]] of curve.entries()) {
    const [fromX, fromY] = curve[at - 1] ?? [x, y]
    if (next === -Infinity) next = x
    for (; next <= x; next += ALONG) {
      const share = x > fromX ? (next - fromX) / (x - fromX) : 1
      const middle = fromY + (y - fromY) * share
      boxes.push({ x: next - ALONG / 2, y: middle - THICK / 2, w: ALONG, h: THICK })
    }
  }
  return boxes
}

/** Size of the clock under the shelf. */
export const TICK = 14

/** Hours under the shelf, apart from each other and from what lies there. */
export function hourWords(
  ticks: readonly Tick[],
  y: number,
  from: number,
  to: number,
  there: readonly Box[],
): Tick[] {
  const apart = ticksApart(ticks, TICK, from, to)
  return apart.filter((tick) => {
    const w = widthOf(tick.word, TICK)
    const box = { x: tick.x - w / 2 - 2, y: y - TICK, w: w + 4, h: TICK + 4 }
    // One that had to be moved from its mark would say the wrong time.
    const stands = ticks.some((known) => known.at === tick.at && Math.abs(known.x - tick.x) < 1)
    return stands && !there.some((other) => overlap(box, other))
  })
}

/** Half the room of the number of a round on the line that leads back to the map. */
export const ROUND_HALF = 40

/**
 * The middle of that number on a line between two places: in its middle, or clear of a word that lies there;
 * nothing where there is no room.
 */
export function roundWordAt(
  left: number,
  right: number,
  taken: readonly [from: number, to: number] | undefined,
): number | null {
  const fits = (at: number) =>
    at - ROUND_HALF >= left &&
    at + ROUND_HALF <= right &&
    (taken === undefined || at + ROUND_HALF <= taken[0] || at - ROUND_HALF >= taken[1])
  const [from, to] = taken ?? [0, 0]
  return [(left + right) / 2, to + ROUND_HALF, from - ROUND_HALF].find(fits) ?? null
}
