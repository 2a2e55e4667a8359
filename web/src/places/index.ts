import type { ComponentType } from 'react'
import { later } from '../ui/later'
import { PLACES, type Place } from './table'

const PAGES: Record<Place, ComponentType> = {
  rack: later(async () => (await import('./rack/RackPage')).RackPage),
  stores: later(async () => (await import('./stores/StoresPage')).StoresPage),
  ledger: later(async () => (await import('./ledger/LedgerPage')).LedgerPage),
  reckoner: later(async () => (await import('./reckoner/ReckonerPage')).ReckonerPage),
  practice: later(async () => (await import('./practice/PracticePage')).PracticePage),
  shop: later(async () => (await import('./shop/ShopPage')).ShopPage),
}

/** Where a device that is not known yet says the passphrase. */
export const DoorPage = later(async () => (await import('./door/DoorPage')).DoorPage)

const JobPage = later(async () => (await import('./job/JobPage')).JobPage)

const HelperPage = later(async () => (await import('./job/HelperPage')).HelperPage)

/** What is shown at each address; what is at none of them is the rack. */
export const ROUTES: readonly { path: string; Page: ComponentType }[] = [
  ...PLACES.map(({ place, path }) => ({ path, Page: PAGES[place] })),
  { path: '/jobs/:id/helper', Page: HelperPage },
  { path: '/jobs/:id/:station?', Page: JobPage },
  { path: '*', Page: PAGES.rack },
]

const AtTheTorchAlone = later(async () => (await import('./job/AtTheTorchAlone')).AtTheTorchAlone)

/** What a helper's phone is shown, of its one job. */
export const HELPERS: typeof ROUTES = [
  { path: '/jobs/:id/helper', Page: HelperPage },
  { path: '/jobs/:id/:station', Page: AtTheTorchAlone },
  { path: '*', Page: AtTheTorchAlone },
]
