import { createStore } from 'zustand/vanilla'

/** How many jobs are watched by a stream that is up: it tells of the shop too, so that nobody has to ask. */
const state = createStore<{ open: number }>(() => ({ open: 0 }))

export const watched = {
  subscribe: state.subscribe,
  now: (): boolean => state.getState().open > 0,
  /** A stream is up; gives what says that it is down again, once. */
  up(): () => void {
    let ended = false
    state.setState(({ open }) => ({ open: open + 1 }))
    return () => {
      if (ended) return
      ended = true
      state.setState(({ open }) => ({ open: open - 1 }))
    }
  },
}
