/** So many are drawn one by one: more are a bundle that nobody counts by eye. */
export const MOST = 24

/** How many of a bundle stay and how many are spoken for, no more than can be drawn. */
export function strokes(
  amount: number | null | undefined,
  spokenFor: number,
): { kept: number; taken: number; uncounted: boolean } {
  if (amount == null) return { kept: 0, taken: 0, uncounted: true }
  const all = Math.min(MOST, Math.ceil(amount))
  const taken = Math.min(all, Math.ceil(spokenFor))
  return { kept: all - taken, taken, uncounted: false }
}
