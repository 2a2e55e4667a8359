import { createStore } from 'zustand/vanilla'
import { store } from '../api/queue/store'

const KEPT = 'vanadin.asked-back'
/** So many answers are remembered: the oldest is the first to be asked again. */
const MOST = 200

function read(): string[] {
  try {
    const kept: unknown = JSON.parse(store.read(KEPT) ?? '[]')
    return Array.isArray(kept) ? kept.filter((id): id is string => typeof id === 'string') : []
  } catch {
    return []
  }
}

const state = createStore<{ answered: readonly string[] }>(() => ({ answered: read() }))

/** Questions back that were answered on this device: what is odd is asked once. */
export const askedOnce = {
  subscribe: state.subscribe,
  answered: (): readonly string[] => state.getState().answered,
  answer(id: string): void {
    const answered = [...state.getState().answered.filter((known) => known !== id), id].slice(-MOST)
    store.write(KEPT, JSON.stringify(answered))
    state.setState({ answered })
  },
}
