import { expect, it } from 'vitest'
import { beadDone, pieceDone } from './piece-words'

it('says what was done by what is laid or set', () => {
  expect(['bead', 'pin', 'strap', 'fill'].map(pieceDone)).toEqual([
    'Bead done',
    'Pin set',
    'Strap fitted',
    'Seam filled',
  ])
  expect(pieceDone('something new')).toBe('Bead done')
})

it.each([
  [1, true, 'Wait. Then: first bead laid'],
  [1, false, 'First bead laid'],
  [2, true, 'Bead 2 done'],
])('says what is pressed for bead %i, soaking: %s', (number, soaking, words) => {
  expect(beadDone(number, soaking)).toBe(words)
})
