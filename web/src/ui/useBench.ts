import { useSyncExternalStore } from 'react'

/** As wide as a laptop on the bench; the same breakpoint as `bench:` in styles. */
const WIDE = '(min-width: 900px)'

function subscribe(changed: () => void): () => void {
  const wide = window.matchMedia(WIDE)
  wide.addEventListener('change', changed)
  return () => wide.removeEventListener('change', changed)
}

/** There is the room of a laptop. */
export const useBench = (): boolean => useSyncExternalStore(subscribe, () => window.matchMedia(WIDE).matches)
