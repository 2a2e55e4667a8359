import { createStore } from 'zustand/vanilla'

/** Whether the server is reached, and from when what is shown here is. */
export interface Reach {
  /** It was not reached the last time it was asked. */
  lost: boolean
  /** What is shown was seen then, UTC in ms since 1970; nothing while it comes from the server. */
  seenAtMs: number | null
}

const store = createStore<Reach>(() => ({ lost: false, seenAtMs: null }))

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
  subscribe: store.subscribe,
  now: store.getState,
  answered: (seenAt: string | null) => store.setState((state) => afterAnswer(state, seenAt), true),
  /** The server answers; what is shown was not asked for again yet. */
  found: () => store.setState((state) => (state.lost ? { ...state, lost: false } : state), true),
  lost: () => store.setState((state) => (state.lost ? state : { ...state, lost: true }), true),
}
