// @vitest-environment jsdom
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { JobView } from '../client'

const JOB = 'a-job'
const name = (typed: string) => ({ kind: 'set', key: 'part.name', typed, shown_in: 'metric' }) as const
const viewOf = (revision: number) => ({ id: JOB, revision, now_ms: 1, folder: 'here' }) as unknown as JobView

/** What the server answers to each entry, in turn; `null` for one that is not reached. */
let answers: ((body: { id: string }) => unknown)[] = []
let posted: string[] = []
let there = true

vi.mock('../client', () => ({
  Refused: class extends Error {},
  dataOf: () => undefined,
  api: {
    GET: async () => {
      if (!there) throw new TypeError('not reached')
      return { data: { folder: 'here', now_ms: 1, clock_notice: '' } }
    },
    POST: async (_path: string, { body }: { body: { id: string } }) => {
      posted.push(body.id)
      const answer = answers.shift() ?? (() => ({ data: viewOf(1), response: { status: 200 } }))
      return answer(body)
    },
  },
}))

/** A page as it is opened: with what the browser kept. */
async function opened() {
  vi.resetModules()
  return (await import('./outbox')).outbox
}

const stored = () => Object.keys(localStorage).filter((key) => key.startsWith('vanadin.waiting.'))

beforeEach(() => {
  vi.useFakeTimers()
  vi.spyOn(console, 'error').mockReturnValue()
  localStorage.clear()
  answers = []
  posted = []
  there = true
})

describe('what is said', () => {
  it('is kept before it is sent, sent once, and kept no longer', async () => {
    const outbox = await opened()
    outbox.say(JOB, name('Gate'))
    expect(stored()).toHaveLength(1)
    await vi.runOnlyPendingTimersAsync()
    expect(posted).toHaveLength(1)
    expect(stored()).toHaveLength(0)
    expect(outbox.now().waiting).toHaveLength(0)
  })

  it('goes on after an answer that cannot be read', async () => {
    const outbox = await opened()
    // An answer of another version: there is nothing of a job in it.
    answers = [
      () => ({
        data: {
          get revision(): never {
            throw new Error('no such thing')
          },
          now_ms: 1,
        },
        response: { status: 200 },
      }),
    ]
    outbox.say(JOB, name('Gate'))
    outbox.say(JOB, name('Lever'))
    await vi.advanceTimersByTimeAsync(100)
    expect(posted).toHaveLength(2)
    expect(outbox.now().waiting).toHaveLength(0)
    outbox.say(JOB, name('Wheel'))
    await vi.advanceTimersByTimeAsync(100)
    expect(posted).toHaveLength(3)
  })

  it('goes on after anything that is thrown on the way', async () => {
    const outbox = await opened()
    await vi.advanceTimersByTimeAsync(100)
    answers = [
      () => {
        throw new RangeError('anything')
      },
    ]
    outbox.say(JOB, name('Gate'))
    await vi.advanceTimersByTimeAsync(10_000)
    expect(outbox.now().waiting).toHaveLength(0)
    expect(posted.length).toBeGreaterThan(1)
    expect(new Set(posted).size).toBe(1)
  })

  it('waits while the server keeps nothing, and says why in its words', async () => {
    const outbox = await opened()
    const full = {
      problems: [{ field: '', message: 'the disk is full. Nothing was changed', would_be_right: '' }],
    }
    answers = [() => ({ error: full, response: { status: 507 } })]
    outbox.say(JOB, name('Gate'))
    await vi.advanceTimersByTimeAsync(100)
    expect(outbox.now().trouble).toContain('the disk is full')
    expect(stored()).toHaveLength(1)
    await vi.advanceTimersByTimeAsync(10_000)
    expect(outbox.now()).toMatchObject({ trouble: '', waiting: [], reached: true })
  })

  it('is refused with its reason, and kept to be said again', async () => {
    const outbox = await opened()
    const problem = { field: 'part.wall', message: 'too thick', would_be_right: '1 to 500 mm' }
    answers = [() => ({ error: { problems: [problem] }, response: { status: 422 } })]
    outbox.say(JOB, { kind: 'set', key: 'part.wall', typed: '9 m', shown_in: 'metric' })
    await vi.advanceTimersByTimeAsync(100)
    const [refusal] = outbox.now().refusals
    expect(refusal).toMatchObject({ field: 'part.wall', typed: '9 m', problem })
    if (refusal !== undefined) outbox.again(refusal)
    await vi.advanceTimersByTimeAsync(100)
    expect(outbox.now()).toMatchObject({ refusals: [], waiting: [] })
  })

  it('by a page that was closed is sent by another', async () => {
    there = false
    const closed = await opened()
    closed.say(JOB, name('Gate'))
    await vi.advanceTimersByTimeAsync(100)
    const left = stored()
    expect(left).toHaveLength(1)
    const text = localStorage.getItem(left[0] ?? '')
    localStorage.clear()
    // Another page that was open all the while: it never heard of it.
    there = true
    const other = await opened()
    localStorage.setItem(left[0] ?? '', text ?? '')
    posted = []
    await vi.advanceTimersByTimeAsync(40_000)
    expect(posted).toHaveLength(1)
    expect(stored()).toHaveLength(0)
    expect(other.now().waiting).toHaveLength(0)
  })

  it('that waits is not sent by a page that is told that another sent it', async () => {
    there = false
    const outbox = await opened()
    outbox.say(JOB, name('Gate'))
    await vi.advanceTimersByTimeAsync(100)
    const key = stored()[0] ?? ''
    localStorage.removeItem(key)
    window.dispatchEvent(new StorageEvent('storage', { key, newValue: null }))
    expect(outbox.now().waiting).toHaveLength(0)
  })
})
