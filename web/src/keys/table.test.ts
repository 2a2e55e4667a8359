import { describe, expect, it } from 'vitest'
import { STATIONS } from '../job/stations'
import { PLACES } from '../places/table'
import { GO, KEYS, SAID, STATION_KEYS } from './table'

describe('the keys', () => {
  it('mean one thing each', () => {
    const all = [...GO.map(({ key }) => key), ...Object.keys(SAID), ...STATION_KEYS, 'w', 'u', '?']
    expect(new Set(all).size).toBe(all.length)
  })

  it('reach every place and every station', () => {
    for (const { path } of PLACES) expect(GO.some(({ to }) => to === path)).toBe(true)
    expect(STATION_KEYS).toHaveLength(STATIONS.length)
  })

  it('are all told', () => {
    const told = KEYS.map(([key]) => key)
    for (const { key } of GO) expect(told).toContain(key)
    for (const key of Object.keys(SAID)) expect(told).toContain(key)
  })
})
