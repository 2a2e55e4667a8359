import { describe, expect, it } from 'vitest'
import { placeText, stepMm } from './place'

describe('a place on a face', () => {
  it.each([
    [25.4, '1'],
    [12.7, '1/2'],
    [28.575, '1 1/8'],
    // 5.911 in is 5 and 58.3 of 64: 29/32
    [150.14, '5 29/32'],
    [0.1, '0'],
    [-0.1, '0'],
    [-12.7, '-1/2'],
    // The last of the marks rolls over into the next inch.
    [25.3, '1'],
  ])('of %d mm is read off a rule in inches: %s', (mm, text) => {
    expect(placeText(mm, 'imperial')).toBe(text)
  })

  it.each([
    [12.54, '12.5'],
    [0, '0'],
    [-3.25, '-3.2'],
  ])('of %d mm is said to a tenth: %s', (mm, text) => {
    expect(placeText(mm, 'metric')).toBe(text)
  })

  it('is moved by marks of the rule', () => {
    expect(stepMm('imperial', 'usual') * 16).toBeCloseTo(25.4, 9)
    expect(stepMm('imperial', 'large') * 2).toBeCloseTo(25.4, 9)
    expect([stepMm('metric', 'usual'), stepMm('metric', 'large')]).toEqual([1, 10])
  })
})
