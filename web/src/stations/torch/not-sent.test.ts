import { expect, it } from 'vitest'
import type { Schemas } from '../../api/client'
import { isFlowing, isOut, piecesOf } from './not-sent'

const said = (...entries: Schemas['TorchEntry'][]) =>
  entries.map((entry) => ({ change: { kind: 'torch' as const, entry } }))
const at = { crack: 'c', layer: 1, side: 1, beside: 1, along: 1 }

it('counts every piece that waits for the server', () => {
  const waiting = said(
    { kind: 'bead', at },
    { kind: 'peened' },
    { kind: 'beads', at: [at, { ...at, along: 2 }], peened: true },
    { kind: 'pin', crack: 'c', number: 1 },
  )
  expect(piecesOf(waiting)).toBe(4)
  expect(piecesOf([])).toBe(0)
})

it.each([
  [false, [], false],
  [true, [], true],
  [false, said({ kind: 'did', what: 'flow_begun' }), true],
  [false, said({ kind: 'did', what: 'flow_begun' }, { kind: 'bead' }), false],
  [true, said({ kind: 'bead' }), false],
  [true, said({ kind: 'did', what: 'turned' }), true],
])('a flow that runs: known %s and what waits', (known, waiting, flows) => {
  expect(isFlowing(known, waiting)).toBe(flows)
})

it('who fills a seam has it in the heat', () => {
  expect(isOut(true, said({ kind: 'did', what: 'flow_begun' }))).toBe(false)
  expect(isOut(false, said({ kind: 'did', what: 'out_of_heat' }))).toBe(true)
})
