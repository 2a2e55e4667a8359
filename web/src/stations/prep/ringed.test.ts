import { describe, expect, it } from 'vitest'
import { ringed } from './ringed'

const at = (x_mm: number, y_mm: number) => ({ x_mm, y_mm })
const square = [at(0, 0), at(40, 0), at(40, 40), at(0, 40), at(0, 0)]

describe('a patch in its frame', () => {
  it('is to scale, in the middle, its pins evenly all round', () => {
    const row = { run: { closed: true, points: square }, pins: 16, pitch_mm: 10 }
    const { lines, pins, radius } = ringed([row], 10, 512, 262)
    // 50 mm with the pins in 250 px: 5 px a mm
    expect(radius).toBe(25)
    expect(pins).toHaveLength(16)
    expect(pins[0]).toEqual({ x: 156, y: 31 })
    expect(pins[4]).toEqual({ x: 356, y: 31 })
    expect(lines).toEqual(['M156.0 31.0L356.0 31.0L356.0 231.0L156.0 231.0L156.0 31.0'])
  })

  it('begins half a pin from the edge where it runs from edge to edge', () => {
    const row = { run: { closed: false, points: [at(0, 0), at(40, 0)] }, pins: 4, pitch_mm: 10 }
    const { pins, radius } = ringed([row], 10, 262, 100)
    expect(pins.map((pin) => pin.x)).toEqual([56, 106, 156, 206])
    expect(radius).toBe(25)
  })
})
