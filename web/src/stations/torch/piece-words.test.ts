import { expect, it } from 'vitest'
import { pieceDone } from './piece-words'

it('says what was done by what is laid or set', () => {
  expect(['bead', 'pin', 'strap', 'fill'].map(pieceDone)).toEqual([
    'Bead done',
    'Pin set',
    'Strap fitted',
    'Seam filled',
  ])
  expect(pieceDone('something new')).toBe('Bead done')
})
