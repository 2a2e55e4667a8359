import { describe, expect, it } from 'vitest'
import { jobMinutes, laidOut, rung, silence, tells, withGone } from './clocks'

describe('the job clock', () => {
  it('goes on at its speed', () => {
    expect(jobMinutes(10, 1_000, 60, 3_000)).toBe(12)
  })
  it('never goes back', () => {
    expect(jobMinutes(10, 5_000, 60, 3_000)).toBe(10)
  })
})

describe('what rings', () => {
  const clocks = [
    { kind: 'wait', endsMin: 5, words: '' },
    { kind: 'soak', endsMin: 9, words: '' },
  ]
  it('is what ran down since the last look', () => {
    expect(rung(clocks, 4.9, 5).map((clock) => clock.kind)).toEqual(['wait'])
    expect(rung(clocks, 1, 20)).toHaveLength(2)
  })
  it('rings once', () => {
    expect(rung(clocks, 5, 5.1)).toHaveLength(0)
  })
})

describe('what a reading does not name any more', () => {
  const gas = { kind: 'gas', endsMin: 19.7, words: 'acetylene' }
  it('has run down all the same, and rings', () => {
    expect(rung(withGone([gas], []), 19.5, 20)).toEqual([gas])
  })
  it('rings not where it was moved', () => {
    expect(rung(withGone([gas], [{ ...gas, endsMin: 25 }]), 19.5, 20)).toHaveLength(0)
  })
  it('rings not before its time', () => {
    expect(rung(withGone([gas], []), 18, 19)).toHaveLength(0)
  })
})

describe('the clocks as they are laid out', () => {
  const gas = (ends_min: number) => ({ kind: 'gas', ends_min })
  const wait = { kind: 'wait', ends_min: 31 }
  it('has the one that is at its end first large', () => {
    expect(laidOut([gas(150), wait], 30)).toEqual({ large: wait, small: [gas(150)] })
  })
  it('has a gas large only in its last ten minutes', () => {
    expect(laidOut([gas(40.1)], 30)).toEqual({ large: undefined, small: [gas(40.1)] })
    expect(laidOut([gas(40)], 30)).toEqual({ large: gas(40), small: [] })
  })
})

describe('out of the window', () => {
  it('is told at once and then each minute', () => {
    expect(tells(3, null, 3)).toBe(true)
    expect(tells(3, 3, 3.9)).toBe(false)
    expect(tells(3, 3, 4)).toBe(true)
  })
  it('is told anew when it fell out again', () => {
    expect(tells(6, 5.8, 6)).toBe(true)
  })
  it('is not told inside', () => {
    expect(tells(null, null, 3)).toBe(false)
  })
})

describe('a pad that is silent', () => {
  it('is told of after half a minute', () => {
    expect(silence(0.5, 1)).toBe('')
    expect(silence(0.6, 1)).toContain('0:36')
  })
  it('is given three seconds where the clock runs fast', () => {
    expect(silence(2.9, 60)).toBe('')
    expect(silence(3.1, 60)).not.toBe('')
  })
})
