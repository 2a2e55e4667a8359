import { expect, it } from 'vitest'
import { clockFace } from './clock-face'

it.each([
  [250, '4:10'],
  [6.2, '0:07'],
  [0, '0:00'],
  [-30, '0:00'],
  [60, '1:00'],
  [3725, '1:02:05'],
])('%d s are %s', (seconds, expected) => {
  expect(clockFace(seconds)).toBe(expected)
})
