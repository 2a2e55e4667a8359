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

/** Size of the clock under the shelf. */
export const TICK = 12

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
