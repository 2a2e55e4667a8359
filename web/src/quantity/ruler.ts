import type { UnitSystem } from '../api/client'

const INCH_MM = 25.4
const HUNDREDTHS = 100

/** What stands at a mark of a ruler so many mm from its end: it moves with the finger that draws the face nearer. */
export function atTheMark(mm: number, units: UnitSystem): string {
  const value = units === 'imperial' ? mm / INCH_MM : mm
  return `${Math.round(value * HUNDREDTHS) / HUNDREDTHS}`
}
