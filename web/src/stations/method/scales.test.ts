import { describe, expect, it } from 'vitest'
import { clockScale, oddsAt } from './scales'

describe('the scales of the ways', () => {
  it('keeps a share on its scale', () => {
    expect([oddsAt(0.5, 200), oddsAt(-1, 200), oddsAt(2, 200)]).toEqual([100, 0, 200])
  })
  it('holds what takes longest, on whole steps', () => {
    const scale = clockScale([125, 1507], null)
    expect(scale.until).toBeGreaterThanOrEqual(1507)
    expect(scale.ticks[0]).toBe(0)
    expect(scale.ticks.length).toBeLessThanOrEqual(8)
    expect(scale.ticks.at(-1)).toBe(scale.until)
  })
  it('holds the day it is wanted, unless that is far off', () => {
    expect(clockScale([600], 900).until).toBeGreaterThanOrEqual(900)
    expect(clockScale([600], 60 * 24 * 90).until).toBeLessThan(60 * 24)
    expect(clockScale([600], -500).until).toBeGreaterThanOrEqual(600)
  })
  it('has a scale while nothing is known', () => {
    expect(clockScale([], null).until).toBe(60)
  })
})
