import { describe, expect, it } from 'vitest'
import { at, fitted, halfWay, pathOf, rounded, toPixel, toPlace, zoomed } from './view'

const frame = { left_mm: -10, top_mm: 0, right_mm: 190, bottom_mm: 100 }

describe('looking at a face', () => {
  it('shows all of it in the middle', () => {
    // 200 by 100 mm on 800 by 600: 4 px to the mm, 100 px of room above and below.
    const view = fitted(frame, 800, 600)
    expect(view.scale).toBe(4)
    expect(toPixel(view, at(-10, 0))).toEqual({ x: 0, y: 100 })
    expect(toPixel(view, at(190, 100))).toEqual({ x: 800, y: 500 })
  })

  it('keeps the place under the finger where it is', () => {
    const view = fitted(frame, 800, 600)
    const finger = { x: 300, y: 250 }
    const nearer = zoomed(view, 2.5, finger)
    expect(nearer.scale).toBe(10)
    expect(toPlace(nearer, finger)).toEqual(toPlace(view, finger))
  })

  it('comes no nearer than a hair and goes no farther than a barn', () => {
    const view = fitted(frame, 800, 600)
    expect(zoomed(view, 1e9, { x: 0, y: 0 }).scale).toBe(60)
    expect(zoomed(view, 1e-9, { x: 0, y: 0 }).scale).toBe(0.02)
  })

  it('leads there and back', () => {
    const view = zoomed(fitted(frame, 333, 217), 1.7, { x: 20, y: 30 })
    const there = toPlace(view, toPixel(view, at(12.34, 56.78)))
    expect(there.x_mm).toBeCloseTo(12.34, 9)
    expect(there.y_mm).toBeCloseTo(56.78, 9)
  })

  it('writes half-way along a line, above it', () => {
    expect(halfWay([at(0, 0), at(10, 0), at(30, 0)])).toEqual({ place: at(15, 0), across: { x: 0, y: -1 } })
    expect(halfWay([at(30, 0), at(0, 0)])?.across).toEqual({ x: -0, y: -1 })
    expect(halfWay([at(3, 3), at(3, 3)])).toBeNull()
  })

  it('draws to a hundredth', () => {
    expect(rounded(at(1.23456, -0.005))).toEqual(at(1.23, -0))
    expect(pathOf([at(0, 1), at(2, 3)], true)).toBe('M0 1L2 3Z')
  })
})
