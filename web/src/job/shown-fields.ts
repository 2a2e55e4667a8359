import { createStore } from 'zustand/vanilla'

/** Fields that are on the page, and how often: what is refused of one is told there, not in the tray. */
const shown = createStore<ReadonlyMap<string, number>>(() => new Map())

const keyOf = (job: string, field: string): string => `${job} ${field}`

export const shownFields = {
  subscribe: shown.subscribe,
  version: shown.getState,
  has: (job: string, field: string): boolean => (shown.getState().get(keyOf(job, field)) ?? 0) > 0,

  /** A field is shown, until what this gives is called. */
  show(job: string, field: string): () => void {
    const key = keyOf(job, field)
    const change = (by: number) =>
      shown.setState((before) => new Map(before).set(key, (before.get(key) ?? 0) + by), true)
    change(1)
    return () => change(-1)
  },
}
