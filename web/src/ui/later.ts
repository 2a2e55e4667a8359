import { lazy, type ComponentType, type LazyExoticComponent } from 'react'

const RETRY_MS = 1_500
/** A minute; then the page says that it cannot be drawn. */
const TRIES = 40

/** Pages that come when they are needed, or beforehand. */
const loaders: (() => Promise<unknown>)[] = []

/** A part of the application of its own: it is fetched when it is first drawn, and again until it comes. */
export function later<P extends object = object>(
  load: () => Promise<ComponentType<P>>,
): LazyExoticComponent<ComponentType<P>> {
  loaders.push(load)
  const fetched = async (): Promise<{ default: ComponentType<P> }> => {
    for (let tried = 1; ; tried += 1) {
      try {
        return { default: await load() }
      } catch (error) {
        if (tried === TRIES) throw error
        console.warn('A part of the application did not come, it is fetched again.', error)
        await new Promise((again) => setTimeout(again, RETRY_MS))
      }
    }
  }
  return lazy(fetched)
}

/** Fetches every part while nobody waits for it: none is missing when the server is gone. */
export async function fetchTheRest(): Promise<void> {
  for (const load of loaders) await load().catch(() => undefined)
}
