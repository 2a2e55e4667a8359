import { describe, expect, it } from 'vitest'
import { layOut } from './heat-line-layout'
import { alongCurve, hourWords, lineWords, roundWordAt, ROUND_HALF } from './line-words'
import { overlap } from './words'

const frame = { x: 0, y: 0, w: 600, h: 170 }

describe('words of a heat line', () => {
  it('lie on no curve', () => {
    const curve = [
      [250, 20],
      [350, 90],
      [500, 110],
    ] as const
    const along = alongCurve(curve)
    // Every eighth pixel of it is covered, from end to end.
    expect(along.length).toBeGreaterThanOrEqual(250 / 8)
    for (const [x, y] of curve.slice(0, 2)) {
      expect(along.some((box) => Math.abs(box.x + box.w / 2 - x) <= 8 && Math.abs(box.y + 3 - y) <= 8)).toBe(
        true,
      )
    }
    const wanted = { key: 'unwrap', box: { x: 330, y: 84, w: 120, h: 19 } }
    const laid = lineWords(frame, along, [wanted]).get('unwrap')
    expect(laid).toBeDefined()
    expect(along.some((box) => laid !== undefined && overlap(box, laid))).toBe(false)
    expect(alongCurve([])).toEqual([])
  })

  it('give way to each other, the first one stays', () => {
    const box = { x: 300, y: 80, w: 120, h: 18 }
    const laid = lineWords(
      frame,
      [],
      [
        { key: 'now', box },
        { key: 'unwrap', box },
      ],
    )
    expect(laid.get('now')).toEqual(box)
    const other = laid.get('unwrap')
    expect(other !== undefined && overlap(other, box)).toBe(false)
  })

  it('are left out where there is no room', () => {
    const laid = lineWords(frame, [frame], [{ key: 'now', box: { x: 0, y: 0, w: 50, h: 20 } }])
    expect(laid.size).toBe(0)
  })

  it('an hour stands under its own mark or not at all', () => {
    const ticks = [0, 10, 40, 90, 596].map((x, at) => ({ at, x, word: `${at} h` }))
    const kept = hourWords(ticks, 168, 0, 600, [])
    for (const tick of kept) expect(ticks.find((known) => known.at === tick.at)?.x).toBe(tick.x)
    expect(kept.some((tick) => tick.x === 596)).toBe(false)
    const taken = [{ x: 30, y: 150, w: 30, h: 40 }]
    expect(hourWords(ticks, 168, 0, 600, taken).some((tick) => tick.x === 40)).toBe(false)
  })
})

describe('the layout of a heat line', () => {
  it('keeps the names of the stations apart and inside at every width and length', () => {
    for (let width = 880; width <= 1600; width += 40) {
      for (const hours of [1, 3, 9, 30, 70]) {
        for (const beads of [0.2, 0.5, 0.95]) {
          const plan = {
            cold: false,
            curve: [[0, 20]] as [number, number][],
            beads_from: hours * 60 * beads * 0.5,
            beads_to: hours * 60 * beads,
            unwrap_at: hours * 60,
          }
          const box = { width, pad: 22, step: 62, shelf: 150, top: 44, end: 84, right: 38 }
          const { labels } = layOut(box, plan, 400, 0)
          for (const [at, x] of labels.entries()) {
            const next = labels[at + 1]
            if (next !== undefined) expect(next - x).toBeGreaterThanOrEqual(46)
          }
          expect(labels.at(-1)).toBeLessThanOrEqual(width - 30)
        }
      }
    }
  })
})

describe('the number of a round', () => {
  it('stands in the middle of its line, or clear of the word that lies there', () => {
    expect(roundWordAt(100, 500, undefined)).toBe(300)
    expect(roundWordAt(100, 500, [100, 200])).toBe(300)
    expect(roundWordAt(100, 500, [250, 330])).toBe(330 + ROUND_HALF)
    expect(roundWordAt(100, 380, [220, 340])).toBe(220 - ROUND_HALF)
  })

  it('is left out where there is no room', () => {
    expect(roundWordAt(100, 170, undefined)).toBeNull()
    expect(roundWordAt(150, 345, [160, 270])).toBeNull()
  })
})
