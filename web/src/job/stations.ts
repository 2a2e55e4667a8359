import type { Station } from '../api/client'

/** The word on the line and in the address of each station, in the order of the work: a further one is asked for here. */
const NAMED: Readonly<Record<Station, { word: string; path: string }>> = {
  part: { word: 'Part', path: 'part' },
  iron: { word: 'Iron', path: 'iron' },
  cracks: { word: 'Cracks', path: 'cracks' },
  method: { word: 'Method', path: 'method' },
  prep: { word: 'Prep', path: 'prep' },
  heat: { word: 'Heat', path: 'heat' },
  torch: { word: 'Torch', path: 'torch' },
  cooling: { word: 'Cooling', path: 'cooling' },
  check: { word: 'Check', path: 'check' },
  hand_over: { word: 'Hand-over', path: 'hand-over' },
}

export const STATIONS: readonly { station: Station; word: string; path: string }[] = (
  Object.keys(NAMED) as Station[]
).map((station) => ({ station, ...NAMED[station] }))

export const stationAt = (path: string | undefined): Station =>
  STATIONS.find((entry) => entry.path === path)?.station ?? 'part'

export const pathOf = (station: Station): string => NAMED[station].path

export const wordOf = (station: Station): string => NAMED[station].word
