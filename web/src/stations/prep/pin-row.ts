/** What a row of pins along a crack is drawn from. */
export interface Row {
  length_mm: number
  pins: number
  pin_mm: number
  pitch_mm: number
  /** Where along the crack the first pin stands, in mm: under 0 beyond its end. */
  first_pin_mm: number
}

/** Where things lie in the picture, in px. */
export interface DrawnRow {
  radius: number
  /** The crack, from its first end to its last. */
  crack: readonly [number, number]
  /** The middle of each pin, by its number. */
  pins: readonly number[]
}

const MARGIN = 10
const MOST_PX_A_MM = 14

/** A row to scale in the middle of a width: crack and pins, whichever goes further. */
export function pinRow(row: Row, width: number): DrawnRow {
  const middle = (at: number): number => row.first_pin_mm + at * row.pitch_mm
  const half = row.pin_mm / 2
  const from = Math.min(0, row.first_pin_mm - half)
  const to = Math.max(row.length_mm, middle(row.pins - 1) + half)
  const scale = Math.min((width - 2 * MARGIN) / (to - from), MOST_PX_A_MM)
  const left = (width - (to - from) * scale) / 2
  const px = (mm: number): number => left + (mm - from) * scale
  return {
    radius: half * scale,
    crack: [px(0), px(row.length_mm)],
    pins: Array.from({ length: row.pins }, (_, at) => px(middle(at))),
  }
}
