import { describe, expect, it } from 'vitest'
import type { Schemas } from '../../api/client'
import { laidSteps, stepWords } from './hours-strip'

const step = (
  label: string,
  attended_min: number,
  unattended_min: number,
  words: string,
): Schemas['StepOpened'] => ({
  id: label,
  label,
  attended_min,
  unattended_min,
  working: '',
  hands_words: attended_min > 0 ? words : '',
  clock_words: unattended_min > 0 ? words : '',
})

const STEPS = [
  step('Clean', 6, 0, '6 min'),
  step('Heat and soak', 0, 84, '1 h 24'),
  step('Fill', 21, 0, '21 min'),
  step('Cool', 0, 669, '11 h 09'),
  step('Blend', 8, 0, '8 min'),
]

describe('the hours of a way', () => {
  it('are said by hand and by clock', () => {
    expect(stepWords({ hands_words: '6 min', clock_words: '' })).toBe('6 min')
    expect(stepWords({ hands_words: '15 min', clock_words: '1 h 24' })).toBe('15 min and 1 h 24 by itself')
  })

  it('fill the strip from end to end, the shortest in sight', () => {
    const laid = laidSteps(STEPS, 700)
    const last = laid.at(-1)
    expect(last === undefined ? 0 : last.x + last.hands + last.clock).toBeCloseTo(700, 6)
    for (const { hands, clock } of laid) expect(hands + clock).toBeGreaterThanOrEqual(5)
    expect(laid[3]?.hands).toBe(0)
  })

  it.each([320, 700, 1200])('names what has room for its name, the longest before others, on %d', (width) => {
    const laid = laidSteps(STEPS, width)
    const named = laid
      .filter(({ word }) => word !== '')
      .map(({ x, word }) => [x, x + word.length * 7.2] as const)
    for (const [at, [, end]] of named.entries()) expect(end).toBeLessThanOrEqual(named[at + 1]?.[0] ?? width)
    expect(laid[3]?.word).toBe('cool 11 h 09')
  })

  it('of nothing take no room', () => {
    expect(laidSteps([], 700)).toEqual([])
  })
})
