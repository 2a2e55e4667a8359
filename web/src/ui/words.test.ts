import { describe, expect, it } from 'vitest'
import { overlap, placed, stepFor, ticksApart, widthOf, within, type Box } from './words'

const frame: Box = { x: 0, y: 0, w: 200, h: 100 }

describe('words of a drawing', () => {
  it('a longer word is wider, a narrow figure is narrower', () => {
    expect(widthOf('Sat 02:00', 14)).toBeGreaterThan(widthOf('02:00', 14))
    expect(widthOf('02:00', 14, 'figure')).toBeLessThan(widthOf('02:00', 14))
    expect(widthOf('', 14)).toBe(0)
  })

  it('a word at the right end is moved in, one that does not fit is left out', () => {
    const ticks = [
      { at: 0, x: 0, word: '18:00' },
      { at: 1, x: 130, word: 'Sat 00:00' },
      { at: 2, x: 258, word: 'Sat 06:00' },
    ]
    const kept = ticksApart(ticks, 14, 0, 260)
    for (const tick of kept) {
      const half = widthOf(tick.word, 14) / 2
      expect(tick.x - half).toBeGreaterThanOrEqual(0)
      expect(tick.x + half).toBeLessThanOrEqual(260)
    }
    expect(kept.map((tick) => tick.at)).toEqual([0, 1, 2])
    expect(ticksApart(ticks, 14, 0, 30)).toEqual([])
  })

  it('words never lie on each other, however close their marks', () => {
    for (let apart = 1; apart < 80; apart += 3) {
      const ticks = Array.from({ length: 12 }, (_, at) => ({ at, x: at * apart, word: 'Sun 23:59' }))
      const kept = ticksApart(ticks, 12, 0, 300)
      for (const [at, tick] of kept.entries()) {
        const next = kept[at + 1]
        if (next !== undefined) {
          expect(next.x - tick.x).toBeGreaterThanOrEqual(widthOf('Sun 23:59', 12))
        }
      }
    }
  })

  it('a box is moved into its frame', () => {
    expect(within({ x: 190, y: -5, w: 40, h: 20 }, frame)).toEqual({ x: 160, y: 0, w: 40, h: 20 })
  })

  it('a box finds a place beside what is there, or none', () => {
    const there: Box = { x: 0, y: 0, w: 200, h: 20 }
    const found = placed({ x: 50, y: 5, w: 60, h: 14 }, frame, [there])
    expect(found).not.toBeNull()
    expect(found !== null && overlap(found, there)).toBe(false)
    expect(placed({ x: 0, y: 0, w: 60, h: 14 }, frame, [frame])).toBeNull()
  })

  it('boxes that only touch do not lie on each other', () => {
    expect(overlap({ x: 0, y: 0, w: 10, h: 10 }, { x: 10, y: 0, w: 10, h: 10 })).toBe(false)
    expect(overlap({ x: 0, y: 0, w: 10, h: 10 }, { x: 9.9, y: 0, w: 10, h: 10 })).toBe(true)
  })

  it('a step has room for its words', () => {
    expect(stepFor([1, 2, 3, 6], 20, 50)).toBe(3)
    expect(stepFor([1, 2], 1, 500)).toBe(2)
  })
})
