import { describe, expect, it } from 'vitest'
import { ringed } from './ringed'

const at = (x_mm: number, y_mm: number) => ({ x_mm, y_mm })
const square = [at(0, 0), at(40, 0), at(40, 40), at(0, 40), at(0, 0)]

describe('a patch in its frame', () => {
  it('is to scale and in the middle, its pins where they go', () => {
    const patch = { runs: [{ closed: true, points: square }], pins_at: [at(0, 0), at(40, 0)] }
    const { lines, pins, radius } = ringed(patch, 10, 512, 262)
    // 50 mm with the pins in 250 px: 5 px a mm
    expect(radius).toBe(25)
    expect(pins).toEqual([
      { x: 156, y: 31 },
      { x: 356, y: 31 },
    ])
    expect(lines).toEqual(['M156.0 31.0L356.0 31.0L356.0 231.0L156.0 231.0L156.0 31.0'])
  })

  it('has a line for each stretch', () => {
    const run = (y: number) => ({ closed: false, points: [at(0, y), at(40, y)] })
    const patch = { runs: [run(0), run(20)], pins_at: [at(5, 0)] }
    const { lines, pins, radius } = ringed(patch, 10, 262, 162)
    expect(lines).toHaveLength(2)
    expect(pins[0]).toEqual({ x: 56, y: 31 })
    expect(radius).toBe(25)
  })
})
