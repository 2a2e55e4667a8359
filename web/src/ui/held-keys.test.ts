import { describe, expect, it } from 'vitest'
import { pressesAgain } from './held-keys'

describe('a held key', () => {
  it.each([
    ['is one press of Enter', { key: 'Enter', repeat: true }, false, true],
    ['is one press of the space bar', { key: ' ', repeat: true }, false, true],
    ['writes on where lines are typed', { key: 'Enter', repeat: true }, true, false],
    ['is the first press', { key: 'Enter', repeat: false }, false, false],
    ['goes on along the choices', { key: 'ArrowDown', repeat: true }, false, false],
  ])('%s', (_, event, intoLines, again) => {
    expect(pressesAgain(event, intoLines)).toBe(again)
  })
})
