import { describe, expect, it } from 'vitest'
import { laidOver } from './laid-over'

const at = (revision: number) => ({ revision })

describe('an answer to a job', () => {
  it.each([
    ['is shown where nothing is known', at(3), undefined, undefined, false, 3],
    ['is shown when it says more', at(5), at(3), at(3), false, 5],
    ['waits behind what was said meanwhile', at(3), at(3), at(4), false, 4],
    ['of a shop that was put back is shown, though it says less', at(2), at(4), at(4), false, 2],
    ['that was kept is not laid over what was said later', at(2), at(4), at(4), true, 4],
    ['that was kept is shown where it says more', at(5), at(4), at(4), true, 5],
  ])('%s', (_, fresh, asked, since, kept, expected) => {
    expect(laidOver(fresh, { asked, since }, kept).revision).toBe(expected)
  })
})
