import { describe, expect, it } from 'vitest'
import { layWords } from './chart-words'
import { overlap } from './words'

describe('the words of a chart', () => {
  it('stay in their frame and apart at every width and for every pair of times', () => {
    for (let width = 230; width <= 1100; width += 30) {
      const frame = { x: 70, y: 0, w: width - 78, h: width * 0.45 }
      for (let gap = 0; gap <= 200; gap += 20) {
        const posts = [
          { key: 'u', x: width - 24 - gap, y: 200, figure: 'Sat 06:40', words: 'unwrap under 149 °F' },
          { key: 't', x: width - 24, y: 215, figure: 'Sat 09:05', words: 'touch under 113 °F' },
        ]
        const levels = [
          { words: 'at least 500 °F', x: width - 14, y: 60 },
          { words: 'at most 752 °F', x: width - 14, y: 66 },
        ]
        const laid = layWords({ posts, levels, now: { x: width - 60, y: 180 }, line: [], frame })
        expect(laid.length).toBeGreaterThan(0)
        for (const [at, word] of laid.entries()) {
          expect(word.box.x).toBeGreaterThanOrEqual(frame.x)
          expect(word.box.x + word.box.w).toBeLessThanOrEqual(frame.x + frame.w + 1e-9)
          for (const other of laid.slice(at + 1)) expect(overlap(word.box, other.box)).toBe(false)
        }
      }
    }
  })

  it('keeps all of them where there is room', () => {
    const frame = { x: 70, y: 0, w: 900, h: 400 }
    const posts = [{ key: 'u', x: 500, y: 300, figure: '06:40', words: 'unwrap under 65 °C' }]
    const levels = [{ words: 'at least 260 °C', x: 960, y: 100 }]
    const laid = layWords({ posts, levels, now: null, line: [], frame })
    expect(laid.map((word) => word.key)).toEqual(['u', 'at least 260 °C'])
  })

  it('keep off the planned line where there is room', () => {
    const frame = { x: 70, y: 0, w: 300, h: 250 }
    const line = [
      [80, 20],
      [150, 180],
      [350, 225],
    ] as const
    const posts = [
      { key: 'u', x: 270, y: 200, figure: '13:41', words: 'unwrap under 65 °C' },
      { key: 't', x: 330, y: 215, figure: '16:35', words: 'touch under 45 °C' },
    ]
    const laid = layWords({ posts, levels: [], now: null, line, frame })
    expect(laid).toHaveLength(2)
    for (let x = 150; x <= 350; x += 1) {
      const point = { x, y: 180 + ((x - 150) * 45) / 200, w: 1, h: 1 }
      for (const word of laid) expect(overlap(word.box, point)).toBe(false)
    }
  })

  it('is one line beside its post where two would lie on the planned line', () => {
    // A low chart, something on its upper right: as on a laptop while a part is hot.
    const frame = { x: 86, y: 0, w: 804, h: 226 }
    const line = Array.from(
      { length: 60 },
      (_, at) => [86 + at * 13, 226 - 190 * Math.exp(-at / 22)] as const,
    )
    const posts = [
      { key: 'u', x: 666, y: 193, figure: '13:45', words: 'unwrap under 65 °C' },
      { key: 't', x: 830, y: 205, figure: '16:40', words: 'touch under 45 °C' },
    ]
    const under = { x: 510, y: 0, w: 380, h: 140 }
    const laid = layWords({ posts, levels: [], now: null, line, frame, under })
    for (const [at, word] of laid.entries()) {
      expect(Math.abs(word.box.x + word.box.w / 2 - (posts[at]?.x ?? 0))).toBeLessThan(200)
      for (const [x, y] of line) expect(overlap(word.box, { x, y, w: 1, h: 1 })).toBe(false)
    }
  })
})
