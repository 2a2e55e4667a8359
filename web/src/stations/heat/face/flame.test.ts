import { describe, expect, it } from 'vitest'
import { heldAt, isAlong, lastMoved, sweptOn, UNSAID } from './flame'

const at = (x_mm: number, y_mm = 0) => ({ x_mm, y_mm })

describe('a flame swept along a line', () => {
  it('begins where it is and goes on to each place that is pressed', () => {
    const once = sweptOn(UNSAID, at(5), at(10))
    expect(once.path).toEqual([at(5), at(10)])
    expect(sweptOn(once, at(5), at(20)).path).toEqual([at(5), at(10), at(20)])
    expect([UNSAID, heldAt(at(1)), once].map(isAlong)).toEqual([false, false, true])
  })

  it('is moved at its last place by the arrows, and as a whole while it is at one', () => {
    const once = sweptOn(heldAt(at(5)), at(0), at(10))
    expect(lastMoved(once, at(12)).path).toEqual([at(5), at(12)])
    expect(lastMoved(heldAt(at(5)), at(7))).toEqual(heldAt(at(7)))
  })

  it('takes no more places than the server does', () => {
    let flame = UNSAID
    for (let place = 0; place < 40; place += 1) flame = sweptOn(flame, at(0), at(place))
    expect(flame.path).toHaveLength(24)
  })
})
