import { describe, expect, it } from 'vitest'
import { torchSaid, withUnit } from './torch-said'

describe('what was said at the torch', () => {
  it('has its unit where none was typed, and the one that was typed where one was', () => {
    expect(torchSaid({ kind: 'reading', typed: '245', shown_in: 'metric' })).toBe('reading 245 °C')
    expect(torchSaid({ kind: 'reading', typed: '512', shown_in: 'imperial', joint: true })).toBe(
      'joint 512 °F',
    )
    expect(torchSaid({ kind: 'stick', typed: '400', shown_in: 'imperial', melted: true })).toBe(
      'the 400 °F stick melted',
    )
    expect(torchSaid({ kind: 'stick', typed: '205 C', shown_in: 'imperial', melted: false })).toBe(
      'the 205 C stick did not melt',
    )
    expect(torchSaid({ kind: 'aligned', typed: '0.4', shown_in: 'metric' })).toBe('alignment 0.4 mm off')
    expect(withUnit(' 12. ', 'mm')).toBe('12. mm')
  })

  it('says where a bead lies when that was said, and why a part was covered', () => {
    expect(torchSaid({ kind: 'bead' })).toBe('bead done')
    const at = { crack: '0', layer: 2, along: 3, beside: 1, side: 1 }
    expect(torchSaid({ kind: 'bead', at })).toBe('bead done, place 3 of layer 2')
    expect(torchSaid({ kind: 'covered', why: 'the gas ran out' })).toBe('covered: the gas ran out')
    expect(torchSaid({ kind: 'covered' })).toBe('covered')
    expect(torchSaid({ kind: 'did', what: 'out_of_heat' })).toBe('out of the heat')
  })
})
