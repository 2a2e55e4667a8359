import { queryClient } from '../queries'

const OURS = 'vanadin'

/** This page has let go of everything already: it is told of being turned out until the passphrase is said again. */
const FORGOTTEN = 'vanadin-forgotten'

/** This device may come in again: what it keeps from now on is its own. */
export const remembersAgain = (): void => sessionStorage.removeItem(FORGOTTEN)

/** Deletes everything this browser keeps of the shop, once: this device was turned out. Gives whether it did now. */
export async function forgetEverything(): Promise<boolean> {
  if (sessionStorage.getItem(FORGOTTEN) !== null) return false
  for (const kept of [localStorage, sessionStorage]) {
    for (const key of Object.keys(kept).filter((name) => name.startsWith(OURS))) kept.removeItem(key)
  }
  // Not there on plain http of another machine.
  if ('caches' in window) {
    for (const name of await caches.keys()) {
      if (name === 'vanadin-seen') await caches.delete(name)
    }
  }
  indexedDB.deleteDatabase('vanadin.pictures')
  queryClient.clear()
  sessionStorage.setItem(FORGOTTEN, '')
  return true
}
