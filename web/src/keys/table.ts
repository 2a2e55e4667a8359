import { PLACES } from '../places/table'

/** Keys of places, and what each does anywhere. */
export const GO: readonly { key: string; to: string; what: string }[] = [
  { key: '/', to: '/?find', what: 'Find a job' },
  { key: 'n', to: '/?new', what: 'New job' },
  ...PLACES.map(({ key, path, word }) => ({ key, to: path, what: word })),
]

/** The stations of the job on the page, in the order of the work. */
export const STATION_KEYS = '1234567890'

/** Keys that a station or the job on the page answers, where it can. */
export const SAID = {
  l: 'Log a reading',
  b: 'Bead done, or pin set',
  z: 'Undo',
  y: 'Put back',
} as const

export type SaidKey = keyof typeof SAID

/** All of them, as they are shown. */
export const KEYS: readonly (readonly [key: string, what: string])[] = [
  ['Enter', 'The next thing, as the plate says'],
  ...GO.map(({ key, what }) => [key, what] as const),
  ['1 to 9, 0', 'Stations, Part to Hand-over'],
  ...Object.entries(SAID),
  ['w', 'Why: the first figure on the card'],
  ['u', 'Units'],
  ['?', 'These keys'],
]
