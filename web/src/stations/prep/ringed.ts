import type { Schemas } from '../../api/client'
import { path } from '../../ui/pen'

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

/** A patch and its pins, to scale in a frame. */
export function ringed(
  { runs, pins_at }: Pick<Schemas['PatchSeam'], 'runs' | 'pins_at'>,
  pinMm: number,
  wide: number,
  high: number,
): Ringed {
  const all = runs.flatMap((run) => run.points)
  const [xs, ys] = [all.map((at) => at.x_mm), all.map((at) => at.y_mm)]
  const [left, top] = [Math.min(...xs), Math.min(...ys)]
  const [across, down] = [Math.max(...xs) - left + pinMm, Math.max(...ys) - top + pinMm]
  const scale = Math.min((wide - 2 * MARGIN_PX) / across, (high - 2 * MARGIN_PX) / down)
  const [dx, dy] = [(wide - across * scale) / 2, (high - down * scale) / 2]
  const put = (at: Schemas['At']): Place => ({
    x: dx + (at.x_mm - left + pinMm / 2) * scale,
    y: dy + (at.y_mm - top + pinMm / 2) * scale,
  })
  const lines = runs.map((run) => path(run.points.map(put).map(({ x, y }) => [x, y])))
  return { lines, pins: pins_at.map(put), radius: (pinMm / 2) * scale }
}
