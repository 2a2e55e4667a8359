import type { Schemas } from '../../api/client'

type Moved = Schemas['Moved']

/** A figure that moved twice was what it was at first and is what it is now; back where it was it has not moved. */
export function together(kept: readonly Moved[], next: readonly Moved[]): Moved[] {
  const first = new Map(kept.map((moved) => [moved.id, moved]))
  const both = next.map((now) => {
    const was = first.get(now.id)
    return was === undefined ? now : { ...now, was_metric: was.was_metric, was_imperial: was.was_imperial }
  })
  const again = new Set(next.map(({ id }) => id))
  return [...kept.filter(({ id }) => !again.has(id)), ...both].filter(
    ({ was_metric, now_metric }) => was_metric !== now_metric,
  )
}
