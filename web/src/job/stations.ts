import type { Station } from '../api/client'

/** The ten stations in the order of the work, with the word on the line and in the address. */
export const STATIONS: readonly { station: Station; word: string; path: string }[] = [
  { station: 'part', word: 'Part', path: 'part' },
  { station: 'iron', word: 'Iron', path: 'iron' },
  { station: 'cracks', word: 'Cracks', path: 'cracks' },
  { station: 'method', word: 'Method', path: 'method' },
  { station: 'prep', word: 'Prep', path: 'prep' },
  { station: 'heat', word: 'Heat', path: 'heat' },
  { station: 'torch', word: 'Torch', path: 'torch' },
  { station: 'cooling', word: 'Cooling', path: 'cooling' },
  { station: 'check', word: 'Check', path: 'check' },
  { station: 'hand_over', word: 'Hand-over', path: 'hand-over' },
]

export const stationAt = (path: string | undefined): Station =>
  STATIONS.find((entry) => entry.path === path)?.station ?? 'part'

export const pathOf = (station: Station): string =>
  STATIONS.find((entry) => entry.station === station)?.path ?? 'part'

export const wordOf = (station: Station): string =>
  STATIONS.find((entry) => entry.station === station)?.word ?? 'Part'
