import { describe, expect, it } from 'vitest'
import { landed, footOn, within, type Around } from './snap'
import { at } from './view'

const around: Around = {
  lines: [{ mark: 'a', points: [at(20, 50), at(80, 50)] }],
  rims: [[at(0, 0), at(100, 0), at(100, 80), at(0, 80)]],
  circles: [{ x_mm: 50, y_mm: 20, radius_mm: 6 }],
}

describe('where a press lands', () => {
  it('on a point, before anything else', () => {
    expect(landed(around, at(21, 50.5), 2, null)).toEqual({ place: at(20, 50), onto: null })
  })

  it('on the edge, also across the corner that closes it', () => {
    expect(landed(around, at(1.5, 40), 2, null)).toEqual({ place: at(0, 40), onto: null })
  })

  it('on the rim of a hole', () => {
    const { place } = landed(around, at(50, 27), 2, null)
    expect(place).toEqual(at(50, 26))
  })

  it('on another crack, which gets a point there', () => {
    expect(landed(around, at(60, 51), 2, null)).toEqual({ place: at(60, 50), onto: { mark: 'a', before: 0 } })
  })

  it('not on itself, and not on what is out of reach', () => {
    expect(landed(around, at(60, 51), 2, 'a')).toEqual({ place: at(60, 51), onto: null })
    expect(landed(around, at(60, 52.1), 2, null)).toEqual({ place: at(60, 52.1), onto: null })
  })

  it('nowhere on a line of one point', () => {
    expect(footOn([at(1, 1)], at(2, 2))).toBeNull()
  })
})

describe('what lies within an outline', () => {
  const bay = [at(0, 0), at(40, 0), at(40, 30), at(20, 10), at(0, 30)]
  it.each([
    ['in its body', at(20, 5), true],
    ['in an arm', at(2, 25), true],
    ['in the bay between', at(20, 20), false],
    ['beside it', at(41, 10), false],
  ])('%s', (_, place, is) => {
    expect(within(bay, place)).toBe(is)
  })

  it('is nothing in an outline of nothing', () => {
    expect(within([], at(0, 0))).toBe(false)
  })
})
