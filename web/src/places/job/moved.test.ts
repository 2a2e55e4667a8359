import { describe, expect, it } from 'vitest'
import { together } from './moved'

const moved = (id: string, was: string, now: string) => ({
  id,
  name: id,
  was_metric: was,
  was_imperial: was,
  now_metric: now,
  now_imperial: now,
})

describe('figures that moved', () => {
  it('were what they were at first, and are what they are now', () => {
    expect(together([moved('rods', '5', '6')], [moved('rods', '6', '8')])).toEqual([moved('rods', '5', '8')])
  })

  it('have not moved where they are back', () => {
    expect(together([moved('rods', '5', 'nothing')], [moved('rods', 'nothing', '5')])).toEqual([])
  })

  it('stand beside each other', () => {
    const both = together([moved('rods', '5', '6')], [moved('hours', '7 h', '8 h')])
    expect(both.map(({ id }) => id)).toEqual(['rods', 'hours'])
  })
})
