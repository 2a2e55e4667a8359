// @vitest-environment jsdom
import { beforeEach, describe, expect, it } from 'vitest'
import { forget, keep, keptHere, same, type Kept } from './kept'

const one = (id: string, at: number, units: Kept['units'] = 'metric'): Kept => ({
  id,
  units,
  blanks: { mass: `${at} kg` },
  answer: { figures: [], words: {}, notes: [], understood: {}, illustration: null },
  at,
})

describe('what was asked on this device', () => {
  beforeEach(() => localStorage.clear())

  it('is there again, the last first, each calculation once in each system of units', () => {
    keep(one('gas', 1))
    keep(one('oven', 2))
    keep(one('gas', 3, 'imperial'))
    keep(one('gas', 4))
    expect(keptHere().map(({ id, at }) => [id, at])).toEqual([
      ['gas', 4],
      ['gas', 3],
      ['oven', 2],
    ])
  })

  it('is forgotten in its own units alone', () => {
    keep(one('gas', 1))
    keep(one('gas', 2, 'imperial'))
    forget('gas', 'metric')
    expect(keptHere().map(({ units }) => units)).toEqual(['imperial'])
  })

  it('lets go of the oldest', () => {
    for (let at = 0; at < 20; at += 1) keep(one(`of ${at}`, at))
    expect(keptHere()).toHaveLength(12)
    expect(keptHere()[0]?.id).toBe('of 19')
  })

  it('is nothing where what is kept cannot be read', () => {
    localStorage.setItem('vanadin.reckoned', '{')
    expect(keptHere()).toEqual([])
    localStorage.setItem('vanadin.reckoned', '[{"id":"gas"}]')
    expect(keptHere()).toEqual([])
  })

  it('tells the same blanks from others', () => {
    expect(same({ a: '1' }, { a: '1' })).toBe(true)
    expect(same({ a: '1' }, { a: '1', b: '' })).toBe(false)
  })
})
