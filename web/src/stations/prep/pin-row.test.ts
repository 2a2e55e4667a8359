import { describe, expect, it } from 'vitest'
import { pinRow } from './pin-row'

describe('a row of pins in its frame', () => {
  it('goes a pin beyond a tip at either end', () => {
    // 40 mm of crack, pins of 8 from 4 before it to 4 after it: 56 mm from rim to rim, 10 px a mm
    const row = { length_mm: 40, pins: 7, pin_mm: 8, pitch_mm: 8, first_pin_mm: -4 }
    const { radius, crack, pins } = pinRow(row, 580)
    expect(radius).toBe(40)
    expect(crack).toEqual([90, 490])
    expect(pins[0]).toBe(50)
    expect(pins[6]).toBe(530)
  })

  it('begins with the edge where the crack does', () => {
    // From an edge to a tip: the first pin lies within the iron, the last beyond the tip
    const row = { length_mm: 40, pins: 6, pin_mm: 8, pitch_mm: 8, first_pin_mm: 4 }
    const { crack, pins } = pinRow(row, 500)
    expect(crack[0]).toBe(10)
    expect(pins[0]).toBe(50)
    expect(pins[5]).toBe(450)
    expect(crack[1]).toBe(410)
  })

  it('is no larger than it has to be', () => {
    const row = { length_mm: 10, pins: 2, pin_mm: 5, pitch_mm: 5, first_pin_mm: 2.5 }
    const { radius, crack } = pinRow(row, 700)
    expect(radius).toBe(35)
    expect(crack).toEqual([280, 420])
  })
})
