import { afterEach, beforeEach, expect, it, vi } from 'vitest'

// The answer of the server to who asks after its health; what is heard of it is told as the client tells it.
const asked = vi.fn<(path: string) => Promise<void>>()
vi.mock('./client', () => ({
  api: {
    GET: async (path: string) => {
      await asked(path)
      const { reach } = await import('./reach')
      reach.found()
    },
  },
}))
let ends: () => void

beforeEach(async () => {
  vi.useFakeTimers()
  asked.mockReset()
  const { lookForIt } = await import('./look-for-it')
  ends = lookForIt()
})

afterEach(async () => {
  ends()
  const { reach } = await import('./reach')
  reach.answered(null)
  vi.useRealTimers()
})

it('asks for nothing while the server is reached', async () => {
  await vi.advanceTimersByTimeAsync(60_000)
  expect(asked).not.toHaveBeenCalled()
})

it('looks for a server that one answer did not come from, until it is found', async () => {
  const { reach } = await import('./reach')
  asked.mockRejectedValueOnce(new TypeError('not reached'))
  asked.mockImplementation(async () => Promise.resolve())
  reach.lost()
  await vi.advanceTimersByTimeAsync(3_000)
  expect(asked).toHaveBeenCalledExactlyOnceWith('/api/health')
  expect(reach.now().lost).toBe(true)
  await vi.advanceTimersByTimeAsync(3_000)
  expect(reach.now().lost).toBe(false)
  await vi.advanceTimersByTimeAsync(60_000)
  expect(asked).toHaveBeenCalledTimes(2)
})

it('looks again each time', async () => {
  const { reach } = await import('./reach')
  asked.mockImplementation(async () => Promise.resolve())
  for (const times of [1, 2]) {
    reach.lost()
    await vi.advanceTimersByTimeAsync(3_000)
    expect(asked).toHaveBeenCalledTimes(times)
  }
})
