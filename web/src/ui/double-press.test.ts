import { expect, test } from 'vitest'
import { fellThrough, type Press } from './double-press'

const first: Press = { at: 1000, x: 100, y: 200, on: 'plate' }

test.each([
  ['what came up under the finger', { at: 1150, x: 101, y: 202, on: 'answer' }, true],
  ['the same button, pressed twice', { at: 1150, x: 101, y: 202, on: 'plate' }, false],
  ['the field of a label', { at: 1002, x: 100, y: 200, on: 'answer' }, false],
  ['something else further off', { at: 1150, x: 130, y: 200, on: 'answer' }, false],
  ['something else, later', { at: 1301, x: 100, y: 200, on: 'answer' }, false],
  ['just in time', { at: 1300, x: 112, y: 200, on: 'answer' }, true],
])('%s', (_, second, falls) => {
  expect(fellThrough(first, second)).toBe(falls)
})

test('the first press of all falls on nothing', () => {
  expect(fellThrough(null, first)).toBe(false)
})
