import { queryClient } from '../queries'

const OURS = 'vanadin'

/** Deletes everything this browser keeps of the shop: this device was turned out. */
export async function forgetEverything(): Promise<void> {
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
}
