import { describe, expect, it } from 'vitest'
import { MOST, strokes } from './strokes'

describe('a bundle', () => {
  it('shows what stays and what is spoken for', () => {
    expect(strokes(14, 6)).toEqual({ kept: 8, taken: 6, uncounted: false })
  })

  it('is spoken for as a whole where more is wanted than lies there', () => {
    expect(strokes(3, 8)).toEqual({ kept: 0, taken: 3, uncounted: false })
  })

  it('is not counted by eye past what can be drawn', () => {
    const { kept, taken } = strokes(200, 1)
    expect(kept + taken).toBe(MOST)
  })

  it('says that nobody has counted', () => {
    expect(strokes(null, 2).uncounted).toBe(true)
    expect(strokes(0, 0)).toEqual({ kept: 0, taken: 0, uncounted: false })
  })
})
