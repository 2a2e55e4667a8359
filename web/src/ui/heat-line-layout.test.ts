import { describe, expect, it } from 'vitest'
import { layOut, type LineBox, type LinePlan } from './heat-line-layout'
import { path } from './pen'

const box = (width: number): LineBox => ({
  width,
  pad: 20,
  step: width < 700 ? 17 : 62,
  shelf: 90,
  top: 20,
  end: 62,
  right: 20,
})

const plan = (over: Partial<LinePlan> = {}): LinePlan => ({
  cold: false,
  curve: [],
  beads_from: 60,
  beads_to: 140,
  unwrap_at: 800,
  ...over,
})

describe('the heat line', () => {
  it('keeps its ten stations in the order of the work, at every width and length', () => {
    for (const width of [360, 390, 700, 1024, 1280, 1600]) {
      for (const unwrap of [30, 200, 800, 4_300]) {
        for (const from of [1, 20, 300]) {
          const made = layOut(
            box(width),
            plan({ beads_from: from, beads_to: from + 10, unwrap_at: unwrap }),
            400,
            0,
          )
          expect(made.stations).toHaveLength(10)
          const [first, ...rest] = made.stations
          rest.reduce((before, x) => {
            expect(x, `${width} ${unwrap} ${from}`).toBeGreaterThan(before)
            return x
          }, first ?? 0)
          expect(made.stations.at(-1)).toBe(width - 20)
        }
      }
    }
  })

  it('never runs backwards in time, over a cut as well', () => {
    // Hand-worked: 46 px for the 10 min to the torch are 4.6 px/min, 2.8 would fit.
    const made = layOut(box(1280), plan({ beads_from: 10, beads_to: 30, unwrap_at: 300 }), 400, 0)
    expect(made.cut).not.toBeNull()
    let before = -Infinity
    for (let minutes = 0; minutes <= 300; minutes += 1) {
      const x = made.x(minutes)
      expect(x).toBeGreaterThanOrEqual(before)
      before = x
    }
    expect(made.x(300)).toBeLessThanOrEqual(made.endX + 0.001)
  })

  it('cuts nothing that was read, and nothing where lines share one scale', () => {
    const short = plan({ beads_from: 10, beads_to: 30, unwrap_at: 300 })
    expect(layOut(box(1280), short, 400, 290).cut).toBeNull()
    expect(layOut({ ...box(1280), perMinute: 0.8 }, short, 400, 0).cut).toBeNull()
  })

  it('finds the minute again that stands at a place', () => {
    const made = layOut(box(1280), plan(), 400, 0)
    for (const minutes of [0, 33, 140, 799]) expect(made.minutesAt(made.x(minutes))).toBeCloseTo(minutes, 6)
  })

  it('draws hotter higher, and the shop itself on the shelf', () => {
    const made = layOut(box(1280), plan(), 650, 0)
    expect(made.y(20)).toBe(90)
    expect(made.y(-10)).toBe(90)
    expect(made.y(300)).toBeLessThan(made.y(100))
    expect(made.y(650)).toBeGreaterThanOrEqual(20)
  })

  it('is drawn for a job of which nothing is planned', () => {
    const made = layOut(box(390), null, 20, 0)
    expect(made.stations.every(Number.isFinite)).toBe(true)
    expect(made.cut).toBeNull()
  })
})

describe('a path', () => {
  it('begins once and goes on in tenths of a pixel', () => {
    expect(
      path([
        [0, 1.25],
        [10.06, 2],
      ]),
    ).toBe('M0.0 1.3L10.1 2.0')
    expect(path([])).toBe('')
  })
})
