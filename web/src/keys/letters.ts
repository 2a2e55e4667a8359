import { createStore } from 'zustand/vanilla'
import { store } from '../api/queue/store'

const KEPT = 'vanadin.letters'
const state = createStore<{ on: boolean }>(() => ({ on: store.read(KEPT) !== 'off' }))

/** Whether single letters and figures do something on this device: whoever speaks to it turns them off. */
export const letters = {
  subscribe: state.subscribe,
  on: (): boolean => state.getState().on,
  turn(on: boolean): void {
    store.write(KEPT, on ? 'on' : 'off')
    state.setState({ on })
  },
}
