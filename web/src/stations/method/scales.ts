/** Where things stand on the common scales of the ways. Pure. */

/** A share of 0 to 1 as a place across a scale this wide. */
export const oddsAt = (share: number, width: number): number => Math.max(0, Math.min(1, share)) * width

export interface ClockScale {
  /** Minutes from now that fill the scale. */
  until: number
  /** Minutes from now of each tick, the first at now. */
  ticks: readonly number[]
}

const DAY = 24 * 60
const STEPS = [60, 2 * 60, 4 * 60, 8 * 60, DAY, 2 * DAY, 7 * DAY, 14 * DAY, 28 * DAY, 91 * DAY, 365 * DAY]
/** A day that lies this many times further out than what takes longest does not fit on the scale. */
const FAR = 3

/**
 * A scale of time from now on that holds what takes longest, and the day it is wanted unless that is far off: four
 * to eight ticks on whole steps.
 */
export function clockScale(readyMinutes: readonly number[], wanted: number | null): ClockScale {
  const longest = Math.max(60, ...readyMinutes)
  const until = wanted !== null && wanted > 0 && wanted < longest * FAR ? Math.max(longest, wanted) : longest
  const step = STEPS.find((candidate) => until / candidate <= 6) ?? until
  const count = Math.max(1, Math.ceil(until / step))
  return { until: count * step, ticks: Array.from({ length: count + 1 }, (_, at) => at * step) }
}
