import { expect, it } from 'vitest'
import type { Schemas } from '../../api/client'
import { inOneCurve } from './one-curve'

const lit = (what: Schemas['Lighting'], atMs: number): Schemas['LitSeen'] => ({
  fact: `${what}-${atMs}`,
  at_ms: atMs,
  speed: 1,
  frozen: null,
  owned: '',
  what,
  without: [],
})

const entry = (minutes: number, over: Partial<Schemas['LogEntry']>): Schemas['LogEntry'] => ({
  fact: String(minutes),
  minutes,
  at: '',
  entry: { kind: 'reading', typed: '', shown_in: 'metric' },
  celsius: null,
  melts_c: null,
  at_joint: false,
  who: '',
  struck: null,
  ...over,
})

const words = (what: Schemas['Lighting'] | undefined) => what ?? ''

it('lays the sessions of a round one after the other with a little between them', () => {
  const bake = { lit: lit('bake', 1000), log: [], readings: [{ minutes: 60, celsius: 370 }] }
  const main = {
    lit: lit('main', 90_000_000),
    log: [],
    readings: [
      { minutes: 0, celsius: 20 },
      { minutes: 30, celsius: 300 },
    ],
  }
  const [first, second] = inOneCurve([bake, main], words)
  expect([first?.from, first?.words]).toEqual([0, 'bake'])
  expect([second?.from, second?.atMs, second?.points.length]).toEqual([80, 90_000_000, 2])
})

it('takes what was read by hand at the part, not what was crossed out or read at the joint', () => {
  const log = [
    entry(9, { celsius: 200 }),
    entry(3, { celsius: 100 }),
    entry(4, { celsius: 400, at_joint: true }),
    entry(5, { celsius: 500, struck: 'misread' }),
    entry(6, {}),
  ]
  const [only] = inOneCurve([{ lit: lit('main', 0), log, readings: [{ minutes: 5, celsius: 150 }] }], words)
  expect(only?.points.map((it) => it.celsius)).toEqual([100, 150, 200])
})

it('leaves out a lighting of which nothing was read', () => {
  expect(inOneCurve([{ lit: lit('tack', 0), log: [entry(1, {})], readings: [] }], words)).toEqual([])
})
