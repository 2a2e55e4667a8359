import { describe, expect, it } from 'vitest'
import { keyed } from './unit-keys'

const LENGTH = ['mm', 'cm', 'm', 'in', '/', '-']
const MASS = ['lb', 'oz', 'kg', '-']

describe('a key beside the number keys', () => {
  it.each([
    ['a unit behind its number', '12', 'mm', '12 mm'],
    ['another in its place', '12 mm', 'in', '12 in'],
    ['the shorter in the place of the longer', '12 mm', 'm', '12 m'],
    ['the same once more', '12 mm', 'mm', '12 mm'],
    ['a fraction', '3', '/', '3/'],
    ['a unit behind a fraction', '3/8', 'in', '3/8 in'],
    ['a range', '5', '-', '5-'],
    ['no unit without a number', '', 'mm', ''],
    ['what was typed by letters', '12mm', 'in', '12mm in'],
  ])('%s', (_, text, key, stands) => {
    expect(keyed(text, key, LENGTH)).toBe(stands)
  })

  it('adds the second unit of two', () => {
    expect(keyed('3 lb2', 'oz', MASS)).toBe('3 lb2 oz')
  })
})
