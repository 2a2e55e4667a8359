import { expect, it } from 'vitest'
import type { Said, Waiting } from './queue'
import { whatWaits } from './what-waits'

const item = (change: Said): Waiting => ({
  job: 'a',
  id: '1',
  at_client_ms: 1,
  who: 'bench',
  base: null,
  change,
  folder: null,
})
const set = (key: string, typed: string): Waiting => item({ kind: 'set', key, typed, shown_in: 'metric' })
const label = (key: string) => ({ 'part.wall': 'Wall at the break', 'part.name': 'What is it?' })[key]

it.each([
  ['nothing', [], 0, ''],
  ['a field by its name', [set('part.wall', '14')], 0, 'Wall at the break: 14'],
  ['a question without its mark', [set('part.name', 'Lever')], 0, 'What is it: Lever'],
  ['what was emptied', [set('part.wall', '')], 0, 'Wall at the break: nothing'],
  ['a new job and a picture', [item({ kind: 'begin' })], 1, 'a new job; a picture'],
  ['pictures alone', [], 3, '3 pictures'],
  [
    'no more than can be read',
    Array.from({ length: 6 }, () => set('part.wall', '1')),
    0,
    `${Array.from({ length: 4 }, () => 'Wall at the break: 1').join('; ')}; 2 more`,
  ],
])('names %s', (_, waiting, pictures, words) => {
  expect(whatWaits(waiting, pictures, label)).toBe(words)
})
