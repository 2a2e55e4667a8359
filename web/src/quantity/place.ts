import type { UnitSystem } from '../api/client'

const INCH_MM = 25.4
/** A rule has no finer marks. */
const FINEST = 64

/** A place on a face along one of its edges, as a rule shows it: "12.5", "3 1/8". */
export function placeText(mm: number, units: UnitSystem): string {
  if (units === 'metric') return `${Math.round(mm * 10) / 10}`
  const parts = Math.round((Math.abs(mm) / INCH_MM) * FINEST)
  const whole = Math.floor(parts / FINEST)
  const sign = mm < 0 && parts > 0 ? '-' : ''
  let [above, below] = [parts % FINEST, FINEST]
  if (above === 0) return `${sign}${whole}`
  while (above % 2 === 0) [above, below] = [above / 2, below / 2]
  return `${sign}${whole === 0 ? '' : `${whole} `}${above}/${below}`
}

/** What an arrow moves by: a mark of the rule, ten of them, or the finest. */
export function stepMm(units: UnitSystem, size: 'usual' | 'large' | 'fine'): number {
  if (units === 'metric') return { usual: 1, large: 10, fine: 0.1 }[size]
  return { usual: INCH_MM / 16, large: INCH_MM / 2, fine: INCH_MM / FINEST }[size]
}
