/** A box of a word in a drawing: left, top, width, height. */
export interface Box {
  x: number
  y: number
  w: number
  h: number
}

/** Which letters: the running text, or the narrow figures. */
export type Face = 'text' | 'figure'

const NARROW = "iljtfr.,:;'|!()[] 1"
const WIDE = 'mwMW%@'

/** How wide a word is at most, in px at a size: an upper bound for the faces that are shipped. */
export function widthOf(word: string, size: number, face: Face = 'text'): number {
  let ems = 0
  for (const letter of word) {
    const upper = letter >= 'A' && letter <= 'Z'
    const em = WIDE.includes(letter) ? 0.92 : NARROW.includes(letter) ? 0.36 : upper ? 0.7 : 0.6
    // One digit is as wide as another.
    ems += letter === '1' ? 0.6 : em
  }
  return ems * size * (face === 'figure' ? 0.82 : 1)
}

/** Two boxes lie on each other. */
export const overlap = (a: Box, b: Box): boolean =>
  a.x < b.x + b.w && b.x < a.x + a.w && a.y < b.y + b.h && b.y < a.y + a.h

/** The box moved into its frame. */
export function within(box: Box, frame: Box): Box {
  const x = Math.max(frame.x, Math.min(box.x, frame.x + frame.w - box.w))
  const y = Math.max(frame.y, Math.min(box.y, frame.y + frame.h - box.h))
  return { ...box, x, y }
}

const GAP = 3

/**
 * A place for a box near the wanted one, inside the frame and on nothing that lies there already; nothing
 * where there is none.
 *
 *     placed({ x: 90, y: 0, w: 20, h: 10 }, { x: 0, y: 0, w: 100, h: 50 }, []) // x 80, y 0
 */
export function placed(wanted: Box, frame: Box, taken: readonly Box[]): Box | null {
  if (wanted.w > frame.w || wanted.h > frame.h) return null
  const up = wanted.h + GAP
  for (const dy of [0, -up, up, -2 * up, 2 * up, -3 * up, 3 * up, -4 * up]) {
    for (const dx of [0, -wanted.w / 2, wanted.w / 2, -wanted.w, wanted.w]) {
      const box = within({ ...wanted, x: wanted.x + dx, y: wanted.y + dy }, frame)
      if (!taken.some((other) => overlap(box, other))) return box
    }
  }
  return null
}

export interface Tick {
  /** What it stands for. */
  at: number
  /** Middle of its word. */
  x: number
  word: string
}

/**
 * The words under an axis, each in the middle of its mark where there is room, moved in at the ends, and
 * left out where it would lie on the one before.
 */
export function ticksApart(ticks: readonly Tick[], size: number, left: number, right: number): Tick[] {
  let end = left - GAP
  const kept: Tick[] = []
  for (const tick of ticks) {
    const half = widthOf(tick.word, size) / 2
    if (half * 2 > right - left) continue
    const x = Math.max(left + half, Math.min(tick.x, right - half))
    if (x - half < end + GAP) continue
    end = x + half
    kept.push({ ...tick, x })
  }
  return kept
}

/** The smallest step of these at which words of this width have room beside each other. */
export function stepFor(steps: readonly number[], pxPerUnit: number, wordWidth: number): number {
  return steps.find((step) => step * pxPerUnit >= wordWidth + 3 * GAP) ?? steps.at(-1) ?? 1
}
