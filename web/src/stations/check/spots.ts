import type { Schemas } from '../../api/client'

/** One place of the map, whatever is looked for there. */
export interface Spot {
  number: number
  words: string
  face: string
  at: Schemas['At']
  /** On the other side, which is not drawn. */
  behind: boolean
  /** The worst of what is looked for there. */
  verdict: Schemas['CheckState']
}

/** A spot and where its number is written, beside the seam. */
export interface Numbered extends Spot {
  x: number
  y: number
}

/** Numbers to the left and right of their places, none over another; `radius` is how large one is drawn. */
export function apart(spots: readonly Spot[], radius: number): Numbered[] {
  const set: Numbered[] = []
  for (const spot of spots) {
    const side = set.length % 2 === 0 ? -1 : 1
    const x = spot.at.x_mm + side * 2.4 * radius
    let y = spot.at.y_mm
    while (set.some((other) => Math.hypot(other.x - x, other.y - y) < 2.3 * radius)) y += 0.5 * radius
    set.push({ ...spot, x, y })
  }
  return set
}

/** Worse than what stands after it. */
const WORST: readonly Spot['verdict'][] = ['not_ok', 'open', 'left', 'ok']

/** Places that lie on a face, each once: several things are looked for at one seam. */
export function spots(lines: readonly Schemas['CheckLine'][]): Spot[] {
  const found = new Map<number, Spot>()
  for (const place of lines.flatMap((line) => line.places)) {
    const { verdict } = place
    const before = found.get(place.number)
    const worst = before === undefined ? verdict : WORST.find((it) => it === verdict || it === before.verdict)
    const on = place.on_map[0]
    if (before !== undefined) before.verdict = worst ?? verdict
    else if (on !== undefined)
      found.set(place.number, { number: place.number, words: place.words, ...on, verdict })
  }
  return [...found.values()]
}

/** Where the file is tried on a face, as long as nobody has. */
export const pointsOn = (lines: readonly Schemas['CheckLine'][], face: string): Schemas['At'][] =>
  lines
    .flatMap((line) => line.places)
    .filter((place) => place.verdict === 'open' && place.on_map[0]?.face === face && !place.on_map[0].behind)
    .flatMap((place) => place.points)
