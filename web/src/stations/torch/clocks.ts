import { clockFace } from '../../quantity/clock-face'

/** A clock that runs down at the torch. */
export interface Runs {
  kind: string
  /** Minutes on the job clock at which it is at nothing. */
  endsMin: number
  words: string
}

/** Minutes on the job clock by now: what was known of it, gone on at its speed. */
export const jobMinutes = (known: number, knownAtMs: number, speed: number, nowMs: number): number =>
  known + (Math.max(0, nowMs - knownAtMs) * speed) / 60_000

/** A gas is large only when it is soon at its end: before that it is a line. */
const SOON_MIN = 10

interface Ends {
  kind: string
  ends_min: number
}

/** Of all clocks that run the one that is large, the first at its end; and gases that last a while yet. */
export function laidOut<Clock extends Ends>(
  clocks: readonly Clock[],
  now: number,
): { large: Clock | undefined; small: readonly Clock[] } {
  const later = (clock: Clock) => clock.kind === 'gas' && clock.ends_min - now > SOON_MIN
  const soon = clocks.filter((clock) => !later(clock))
  return { large: soon.toSorted((a, b) => a.ends_min - b.ends_min)[0], small: clocks.filter(later) }
}

/** What rings between two looks at the job clock: each clock that ran down in between. */
export const rung = (clocks: readonly Runs[], before: number, now: number): readonly Runs[] =>
  clocks.filter((clock) => clock.endsMin > before && clock.endsMin <= now)

/**
 * The clocks by now, with those that the last reading does not name any more: what ran down between two readings is at
 * nothing there, and would never ring.
 */
export function withGone(before: readonly Runs[], clocks: readonly Runs[]): readonly Runs[] {
  const named = (of: Runs) => clocks.some((clock) => clock.kind === of.kind && clock.words === of.words)
  return [...before.filter((clock) => !named(clock)), ...clocks]
}

/** Whether a part that is out of its window is to be told of: at once, then each minute. */
export function tells(outSinceMin: number | null, lastToldMin: number | null, nowMin: number): boolean {
  if (outSinceMin === null) return false
  return lastToldMin === null || lastToldMin < outSinceMin || nowMin - lastToldMin >= 1
}

/** That nothing was heard of the pad: after 30 s on the job clock, or 3 s where that runs fast. Empty while it is heard. */
export function silence(sinceMin: number, speed: number): string {
  const most = Math.max(0.5, (3 * speed) / 60)
  return sinceMin > most
    ? `Nothing heard of the pad for ${clockFace(sinceMin * 60)}: look at its wire, read by hand.`
    : ''
}
