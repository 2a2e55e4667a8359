import { at, distance, type At } from './view'

/** What a press is drawn to: lines, rims and circles that are there. */
export interface Around {
  lines: readonly { mark: string; points: readonly At[] }[]
  rims: readonly (readonly At[])[]
  circles: readonly { x_mm: number; y_mm: number; radius_mm: number }[]
}

/** Where a press lands, and on what. */
export interface Landed {
  place: At
  /** A line it lies on between two of its points: that one has to get a point there. */
  onto: { mark: string; before: number } | null
}

interface Foot {
  place: At
  before: number
  off: number
}

/** The nearest place of a line to another, and the point before it. */
export function footOn(points: readonly At[], place: At): Foot | null {
  let best: Foot | null = null
  for (let before = 0; before + 1 < points.length; before += 1) {
    const [a, b] = [points[before], points[before + 1]]
    if (a === undefined || b === undefined) continue
    const [dx, dy] = [b.x_mm - a.x_mm, b.y_mm - a.y_mm]
    const long = dx * dx + dy * dy
    const share =
      long === 0
        ? 0
        : Math.min(1, Math.max(0, ((place.x_mm - a.x_mm) * dx + (place.y_mm - a.y_mm) * dy) / long))
    const foot = at(a.x_mm + share * dx, a.y_mm + share * dy)
    const off = distance(foot, place)
    if (best === null || off < best.off) best = { place: foot, before, off }
  }
  return best
}

/** Whether a place lies within an outline. */
export function within(outline: readonly At[], place: At): boolean {
  let odd = false
  outline.forEach((a, index) => {
    const b = outline[(index + 1) % outline.length]
    if (b === undefined || a.y_mm > place.y_mm === b.y_mm > place.y_mm) return
    const x = a.x_mm + ((b.x_mm - a.x_mm) * (place.y_mm - a.y_mm)) / (b.y_mm - a.y_mm)
    if (place.x_mm < x) odd = !odd
  })
  return odd
}

/** Draws a press to a point, an edge, a hole or a line within reach; points first. `not` is what is moved itself. */
export function landed(around: Around, pressed: At, reach_mm: number, not: string | null): Landed {
  const lines = around.lines.filter((line) => line.mark !== not)
  const points = lines.flatMap((line) => line.points)
  const near = points
    .map((place) => ({ place, off: distance(place, pressed) }))
    .filter(({ off }) => off <= reach_mm)
    .toSorted((a, b) => a.off - b.off)[0]
  if (near !== undefined) return { place: near.place, onto: null }
  const rims = around.rims.flatMap((rim) => footOn([...rim, ...rim.slice(0, 1)], pressed) ?? [])
  const circles = around.circles.flatMap((circle) => {
    const middle = at(circle.x_mm, circle.y_mm)
    const off = distance(middle, pressed)
    if (off === 0) return []
    const share = circle.radius_mm / off
    const place = at(
      middle.x_mm + (pressed.x_mm - middle.x_mm) * share,
      middle.y_mm + (pressed.y_mm - middle.y_mm) * share,
    )
    return [{ place, before: -1, off: distance(place, pressed) }]
  })
  const others = lines.flatMap(({ mark, points: along }) => {
    const foot = footOn(along, pressed)
    return foot === null ? [] : [{ ...foot, mark }]
  })
  const onNothing = [...rims, ...circles].map((foot) => ({ ...foot, mark: null }))
  const best = [...onNothing, ...others]
    .filter(({ off }) => off <= reach_mm)
    .toSorted((a, b) => a.off - b.off)[0]
  if (best === undefined) return { place: pressed, onto: null }
  const onto = best.mark === null ? null : { mark: best.mark, before: best.before }
  return { place: best.place, onto }
}
