// @vitest-environment jsdom
import { beforeEach, describe, expect, it, vi } from 'vitest'

const JOB = 'a-job'
let kept: Map<string, unknown>
let answers: (() => Response | Promise<Response>)[]
let sent: string[]
let said: URLSearchParams[]

vi.mock('idb', () => ({
  openDB: async () => ({
    put: async (_: string, item: { id: string }) => void kept.set(item.id, item),
    delete: async (_: string, id: string) => void kept.delete(id),
    getAll: async () => [...kept.values()],
  }),
}))
vi.mock('./outbox', () => ({ sender: 'this-browser' }))

const view = () => new Response(JSON.stringify({ id: JOB, revision: 1 }))
const file = (bytes = 3) => new File([new Uint8Array(bytes)], 'lever.jpg')

async function opened() {
  vi.resetModules()
  return (await import('./pictures')).pictureBox
}

beforeEach(() => {
  vi.useFakeTimers()
  vi.spyOn(console, 'error').mockReturnValue()
  kept = new Map()
  answers = []
  sent = []
  said = []
  vi.stubGlobal('fetch', async (address: string) => {
    const [path = '', words] = address.split('?')
    sent.push(path)
    said.push(new URLSearchParams(words))
    return (answers.shift() ?? view)()
  })
})

describe('a picture', () => {
  it('is kept before it is sent, and no longer once the server has it', async () => {
    answers = [() => new Promise<Response>((done) => setTimeout(() => done(view()), 1_000))]
    const box = await opened()
    await box.take(JOB, file(), 'break', 20)
    await vi.advanceTimersByTimeAsync(10)
    expect([kept.size, sent.length, box.now().waiting.length]).toEqual([1, 1, 1])
    await vi.advanceTimersByTimeAsync(2_000)
    expect([kept.size, sent.length, box.now().waiting.length]).toEqual([0, 1, 0])
  })

  it('waits for a server that is not reached, and is sent under the same address', async () => {
    answers = [
      () => {
        throw new TypeError('not reached')
      },
    ]
    const box = await opened()
    await box.take(JOB, file(), '', 20)
    await vi.advanceTimersByTimeAsync(10)
    expect(kept.size).toBe(1)
    await vi.advanceTimersByTimeAsync(5_000)
    expect([kept.size, sent.length, new Set(sent).size]).toEqual([0, 2, 1])
    expect(box.now().waiting).toEqual([])
  })

  it('that was kept when the page was closed is sent by the next', async () => {
    kept.set('one', {
      id: 'one',
      job: JOB,
      name: 'a',
      file: file(),
      shows: '',
      at_client_ms: 1,
      who: 'bench',
      folder: null,
    })
    const box = await opened()
    await vi.advanceTimersByTimeAsync(100)
    expect(sent).toEqual(['/api/jobs/a-job/pictures/one'])
    // It was kept before a picture could prove anything: it shows the part.
    expect(said[0]?.has('of')).toBe(false)
    expect(box.now().waiting).toEqual([])
  })

  it('is refused with its reason, and the next goes on', async () => {
    const problem = { field: 'picture', message: 'no picture', would_be_right: 'a JPEG' }
    answers = [() => new Response(JSON.stringify({ problems: [problem] }), { status: 422 })]
    const box = await opened()
    await box.take(JOB, file(), '', 20)
    await box.take(JOB, file(), '', 20)
    await vi.advanceTimersByTimeAsync(100)
    expect(box.now().refused).toMatchObject([{ name: 'lever.jpg', problem }])
    expect([box.now().waiting.length, sent.length]).toEqual([0, 2])
  })

  it('of one thing says which, and is refused beside that', async () => {
    const problem = { field: 'picture', message: 'no picture', would_be_right: 'a JPEG' }
    answers = [() => new Response(JSON.stringify({ problems: [problem] }), { status: 422 })]
    const box = await opened()
    await box.take(JOB, file(), '', 20, 'a-look')
    await vi.advanceTimersByTimeAsync(100)
    expect(said.map((words) => [words.get('of'), words.get('shows')])).toEqual([['a-look', null]])
    expect(box.now().refused).toMatchObject([{ of: 'a-look' }])
  })

  it('whose answer comes late lies over nothing that was said meanwhile', async () => {
    answers = [() => new Promise<Response>((done) => setTimeout(() => done(view()), 1_000))]
    const box = await opened()
    const { queryClient, jobQuery } = await import('../queries')
    await box.take(JOB, file(), '', 20)
    const later = { id: JOB, revision: 5 } as never
    queryClient.setQueryData(jobQuery(JOB).queryKey, later)
    await vi.advanceTimersByTimeAsync(2_000)
    expect(queryClient.getQueryData(jobQuery(JOB).queryKey)).toEqual(later)
  })

  it('outlives an answer that cannot be read', async () => {
    answers = [() => new Response('no JSON')]
    const box = await opened()
    await box.take(JOB, file(), '', 20)
    await vi.advanceTimersByTimeAsync(10_000)
    expect([kept.size, box.now().waiting.length]).toEqual([0, 0])
  })

  it('that is too large is told at once and never sent', async () => {
    const box = await opened()
    await box.take(JOB, file(2 * 1024 * 1024), '', 1)
    expect(box.now().refused[0]?.problem.message).toContain('more than 1 MB')
    expect(sent).toEqual([])
  })
})
