/** Whether the server is reached, and from when what is shown here is. */
export interface Reach {
  /** It was not reached the last time it was asked. */
  lost: boolean
  /** What is shown was seen then, UTC in ms since 1970; nothing while it comes from the server. */
  seenAtMs: number | null
}

let state: Reach = { lost: false, seenAtMs: null }
const listeners = new Set<() => void>()

/** What an answer says of it: one from this browser's store carries the time at which it was seen. */
export function afterAnswer(before: Reach, seenAt: string | null): Reach {
  if (seenAt === null)
    return before.lost || before.seenAtMs !== null ? { lost: false, seenAtMs: null } : before
  const at = Number(seenAt)
  // Of several the oldest counts: nothing that is shown is older than what is said.
  const seenAtMs = before.seenAtMs === null ? at : Math.min(at, before.seenAtMs)
  return { lost: true, seenAtMs }
}

export const reach = {
  subscribe(listener: () => void): () => void {
    listeners.add(listener)
    return () => listeners.delete(listener)
  },
  now: (): Reach => state,
  answered: (seenAt: string | null) => become(afterAnswer(state, seenAt)),
  /** The server answers; what is shown was not asked for again yet. */
  found: () => become(state.lost ? { ...state, lost: false } : state),
  lost: () => become(state.lost ? state : { ...state, lost: true }),
}

function become(next: Reach): void {
  if (next === state) return
  state = next
  for (const listener of listeners) listener()
}
