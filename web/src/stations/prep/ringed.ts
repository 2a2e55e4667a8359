import type { Schemas } from '../../api/client'

interface Place {
  x: number
  y: number
}

export interface Ringed {
  lines: string[]
  /** Middles of the pins, in the order of their numbers. */
  pins: Place[]
  radius: number
}

const MARGIN_PX = 6

/** Where a line is after so many mm of it. */
function along(points: readonly Schemas['At'][], mm: number): Schemas['At'] | undefined {
  let left = mm
  for (const [at, from] of points.entries()) {
    const to = points[at + 1]
    if (to === undefined) return from
    const long = Math.hypot(to.x_mm - from.x_mm, to.y_mm - from.y_mm)
    if (left <= long && long > 0) {
      const share = left / long
      return {
        x_mm: from.x_mm + (to.x_mm - from.x_mm) * share,
        y_mm: from.y_mm + (to.y_mm - from.y_mm) * share,
      }
    }
    left -= long
  }
  return undefined
}

/** The rows of a patch, drawn to scale in a frame. */
export function ringed(
  rows: readonly Schemas['PatchRow'][],
  pinMm: number,
  wide: number,
  high: number,
): Ringed {
  const all = rows.flatMap((row) => row.run.points)
  const [xs, ys] = [all.map((at) => at.x_mm), all.map((at) => at.y_mm)]
  const [left, top] = [Math.min(...xs), Math.min(...ys)]
  const [across, down] = [Math.max(...xs) - left + pinMm, Math.max(...ys) - top + pinMm]
  const scale = Math.min((wide - 2 * MARGIN_PX) / across, (high - 2 * MARGIN_PX) / down)
  const [dx, dy] = [(wide - across * scale) / 2, (high - down * scale) / 2]
  const put = (at: Schemas['At']): Place => ({
    x: dx + (at.x_mm - left + pinMm / 2) * scale,
    y: dy + (at.y_mm - top + pinMm / 2) * scale,
  })
  const pins = rows.flatMap((row) => {
    const begins = row.run.closed ? 0 : pinMm / 2
    return Array.from({ length: row.pins }, (_, pin) => along(row.run.points, begins + pin * row.pitch_mm))
      .filter((at) => at !== undefined)
      .map(put)
  })
  const lines = rows.map((row) =>
    row.run.points
      .map(put)
      .map(({ x, y }, at) => `${at === 0 ? 'M' : 'L'}${x.toFixed(1)} ${y.toFixed(1)}`)
      .join(''),
  )
  return { lines, pins, radius: (pinMm / 2) * scale }
}
