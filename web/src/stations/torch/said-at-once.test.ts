import { expect, it } from 'vitest'
import type { Schemas } from '../../api/client'
import { atOnce, byWord } from './said-at-once'

const at = (along: number): Schemas['BeadAt'] => ({ crack: 'c', layer: 1, side: 1, beside: 1, along })
const said = (fact: string, minutes: number, entry: Schemas['TorchEntry']): Schemas['LogEntry'] => ({
  fact,
  minutes,
  at: `${minutes} min`,
  entry,
  who: '',
  at_joint: false,
  doubted: false,
})

it('beads that were said at once are one word, where the last of them stands', () => {
  const log = [
    said('a', 1, { kind: 'bead', at: at(1) }),
    said('b', 2, { kind: 'bead', at: at(2) }),
    said('b', 2, { kind: 'peened' }),
    said('c', 3, { kind: 'reheated' }),
    said('b', 4, { kind: 'bead', at: at(3) }),
    said('b', 4, { kind: 'peened' }),
  ]
  const words = byWord(log)
  expect(words.map((word) => word.last.fact)).toEqual(['a', 'c', 'b'])
  expect(words.map(atOnce)).toEqual([undefined, undefined, '2 beads done, layer 1, each peened'])
})

it('one bead and its peening, each said for itself, stay two words', () => {
  const log = [said('a', 1, { kind: 'bead', at: at(1) }), said('b', 1, { kind: 'peened' })]
  expect(byWord(log).map(atOnce)).toEqual([undefined, undefined])
})
