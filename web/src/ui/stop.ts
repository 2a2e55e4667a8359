import { useEffect, useRef, useSyncExternalStore } from 'react'
import { createStore } from 'zustand/vanilla'

const offered = createStore<{ stop: (() => void) | null }>(() => ({ stop: null }))

const now = (): (() => void) | null => offered.getState().stop

/** What stops the work at the torch; nothing where nothing burns. A sheet that lies over it has it at its head. */
export const useStop = (): (() => void) | null => useSyncExternalStore(offered.subscribe, now)

/** While this is shown, what burns can be stopped from every sheet. */
export function useOffersStop(stop: () => void): void {
  const latest = useRef(stop)
  useEffect(() => {
    latest.current = stop
  })
  useEffect(() => {
    offered.setState({ stop: () => latest.current() })
    return () => offered.setState({ stop: null })
  }, [])
}
