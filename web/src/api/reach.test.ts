import { describe, expect, it } from 'vitest'
import { afterAnswer, type Reach } from './reach'

const here: Reach = { lost: false, seenAtMs: null }

describe('what is shown', () => {
  it('comes from the server while it answers', () => {
    expect(afterAnswer(here, null)).toBe(here)
    expect(afterAnswer({ lost: true, seenAtMs: 5 }, null)).toEqual(here)
    expect(afterAnswer({ lost: true, seenAtMs: null }, null)).toEqual(here)
  })

  it('is as old as the oldest answer from the store', () => {
    const first = afterAnswer(here, '2000')
    expect(first).toEqual({ lost: true, seenAtMs: 2000 })
    expect(afterAnswer(first, '1000').seenAtMs).toBe(1000)
    expect(afterAnswer(first, '3000').seenAtMs).toBe(2000)
  })
})
