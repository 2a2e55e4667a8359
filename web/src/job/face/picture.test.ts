import { describe, expect, it } from 'vitest'
import { moved, nowAmong, pathOf, placeAt, withRoom, type Frame } from './picture'

const frame: Frame = [-10, -20, 190, 80]

describe('a face on the screen', () => {
  it('is pressed where it lies', () => {
    const box = { left: 100, top: 50, width: 400, height: 200 }
    expect(placeAt(box, { x: 100, y: 50 }, frame)).toEqual({ x_mm: -10, y_mm: -20 })
    expect(placeAt(box, { x: 500, y: 250 }, frame)).toEqual({ x_mm: 190, y_mm: 80 })
    expect(placeAt(box, { x: 300, y: 150 }, frame)).toEqual({ x_mm: 90, y_mm: 30 })
  })

  it('moves its flame by arrows and no further than it is shown', () => {
    expect(moved({ x_mm: 0, y_mm: 0 }, 'ArrowRight', 10, frame)).toEqual({ x_mm: 10, y_mm: 0 })
    expect(moved({ x_mm: 0, y_mm: -15 }, 'ArrowUp', 10, frame)).toEqual({ x_mm: 0, y_mm: -20 })
    expect(moved({ x_mm: 0, y_mm: 0 }, 'Enter', 10, frame)).toBeNull()
  })

  it('is one path, with what is cut out of it', () => {
    const square = [
      { x_mm: 0, y_mm: 0 },
      { x_mm: 4, y_mm: 0 },
      { x_mm: 4, y_mm: 4 },
    ]
    expect(pathOf([square, square])).toBe('M0 0L4 0L4 4ZM0 0L4 0L4 4Z')
  })

  it('keeps words out of the way of those at a tip', () => {
    const word = (x_mm: number, y_mm: number) => ({ at: { x_mm, y_mm }, words: '120 °C' })
    const tip = { at: { x_mm: 0, y_mm: 0 }, words: 'A open 0.6' }
    expect(withRoom([word(40, 3), word(40, 40), word(400, 3)], [tip], 1)).toEqual([
      word(40, 40),
      word(400, 3),
    ])
    // Nor do they stand on each other.
    expect(withRoom([word(40, 40), word(50, 48)], [tip], 1)).toEqual([word(40, 40)])
  })

  it('is at the moment whose coldest place comes nearest to what was read', () => {
    const moments = [{ coldest_c: 20 }, { coldest_c: 80 }, { coldest_c: 190 }]
    expect(nowAmong(moments, 100)).toBe(1)
    expect(nowAmong(moments, 400)).toBe(2)
    expect(nowAmong(moments, null)).toBeNull()
    expect(nowAmong([], 100)).toBeNull()
  })
})
