import type { Station } from '../api/client'
import { useTables } from './TablesContext'

/** The word on the line of a station; nothing for what is none. */
export function useStationWord(): (station: Station | undefined) => string {
  const { stations } = useTables()
  return (station) => stations.find((entry) => entry.station === station)?.word ?? ''
}
