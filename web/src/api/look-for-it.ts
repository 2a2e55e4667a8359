import { api } from './client'
import { reach } from './reach'

/** While the server is not reached it is asked so often whether it is there. */
const EVERY_MS = 3_000

/**
 * Looks for the server while it is not reached: one answer that did not come in time says nothing of the next, and a page
 * that is told of what changes asks for nothing by itself. Gives what ends it.
 */
export function lookForIt(): () => void {
  let soon: ReturnType<typeof setTimeout> | undefined
  const look = (): void => {
    if (soon !== undefined || !reach.now().lost) return
    soon = setTimeout(() => {
      void api
        .GET('/api/health')
        // Not there yet.
        .catch(() => undefined)
        .finally(() => {
          soon = undefined
          look()
        })
    }, EVERY_MS)
  }
  const ended = reach.subscribe(look)
  look()
  return () => {
    ended()
    clearTimeout(soon)
  }
}
