/** The places of the application that are not a job: head, routes and the keys come from here. */
export const PLACES = [
  { place: 'rack', path: '/', word: 'Rack', key: 'r' },
  { place: 'stores', path: '/stores', word: 'Stores', key: 'g' },
  { place: 'ledger', path: '/ledger', word: 'Ledger', key: 'e' },
  { place: 'reckoner', path: '/reckoner', word: 'Reckoner', key: 'c' },
  { place: 'practice', path: '/practice', word: 'Practice', key: 'p' },
  { place: 'shop', path: '/shop', word: 'Shop', key: 's' },
] as const

export type Place = (typeof PLACES)[number]['place']
