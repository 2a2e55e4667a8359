import type { Station } from '../api/client'

/** Where each station lies, in the order of the work: a further one is asked for here. Its word is in the tables. */
const PATHS: Readonly<Record<Station, string>> = {
  part: 'part',
  iron: 'iron',
  cracks: 'cracks',
  method: 'method',
  prep: 'prep',
  heat: 'heat',
  torch: 'torch',
  cooling: 'cooling',
  check: 'check',
  hand_over: 'hand-over',
}

export const STATIONS: readonly { station: Station; path: string }[] = (Object.keys(PATHS) as Station[]).map(
  (station) => ({ station, path: PATHS[station] }),
)

export const stationAt = (path: string | undefined): Station =>
  STATIONS.find((entry) => entry.path === path)?.station ?? 'part'

export const pathOf = (station: Station): string => PATHS[station]
