import { QueryClient, QueryObserver } from '@tanstack/react-query'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { askAgain, askedAt, askOf, askWhatMayDiffer } from './ask-again'

const client = new QueryClient({ defaultOptions: { queries: { retry: false, staleTime: Infinity } } })
afterEach(() => client.clear())

function shown(key: string, asked: () => Promise<string>) {
  return new QueryObserver(client, { queryKey: [key], queryFn: asked }).subscribe(() => undefined)
}

describe('what is shown', () => {
  it('is asked for once more', async () => {
    const asked = vi.fn(async () => Promise.resolve('rack'))
    shown('rack', asked)
    await vi.waitFor(() => expect(client.getQueryData(['rack'])).toBe('rack'))
    askAgain(client)
    await vi.waitFor(() => expect(asked).toHaveBeenCalledTimes(2))
  })

  it('is asked for once more when it was on its way, after it has come', async () => {
    const came: ((answer: string) => void)[] = []
    const asked = vi.fn(async () => new Promise<string>((come) => came.push(come)))
    shown('job', asked)
    askAgain(client)
    expect(asked).toHaveBeenCalledTimes(1)
    came[0]?.('as it was')
    await vi.waitFor(() => expect(asked).toHaveBeenCalledTimes(2))
  })

  it('is asked for once more where it is only kept ready', async () => {
    const asked = vi.fn(async () => Promise.resolve('blank'))
    await client.prefetchQuery({ queryKey: ['blank'], queryFn: asked })
    askAgain(client)
    await vi.waitFor(() => expect(asked).toHaveBeenCalledTimes(2))
  })

  it('is left alone when it failed', async () => {
    const asked = vi.fn(async () => Promise.reject(new Error('not reached')))
    shown('shop', asked)
    askAgain(client)
    await vi.waitFor(() => expect(client.getQueryState(['shop'])?.status).toBe('error'))
    askAgain(client)
    expect(asked).toHaveBeenCalledTimes(1)
  })
})

describe('once the server is heard again', () => {
  const reckoned = { meta: { reckoned: true } }

  it('what may have been kept is asked for anew, and what was worked out is not', async () => {
    const seen = vi.fn(async () => Promise.resolve('job'))
    const worked = vi.fn(async () => Promise.resolve('where to begin'))
    shown('job', seen)
    new QueryObserver(client, { queryKey: ['begin'], queryFn: worked, ...reckoned }).subscribe(
      () => undefined,
    )
    await vi.waitFor(() => expect(client.getQueryData(['begin'])).toBe('where to begin'))
    askWhatMayDiffer(client)
    await vi.waitFor(() => expect(seen).toHaveBeenCalledTimes(2))
    expect(worked).toHaveBeenCalledTimes(1)
  })

  it('what is being worked out is let finish', async () => {
    const worked = vi.fn(async () => new Promise<string>(() => undefined))
    new QueryObserver(client, { queryKey: ['begin'], queryFn: worked, ...reckoned }).subscribe(
      () => undefined,
    )
    askWhatMayDiffer(client)
    await new Promise((soon) => setTimeout(soon, 0))
    expect(worked).toHaveBeenCalledTimes(1)
  })

  it('what could not be worked out is', async () => {
    const worked = vi
      .fn<() => Promise<string>>()
      .mockRejectedValueOnce(new Error('not reached'))
      .mockResolvedValue('where to begin')
    new QueryObserver(client, { queryKey: ['begin'], queryFn: worked, ...reckoned }).subscribe(
      () => undefined,
    )
    await vi.waitFor(() => expect(client.getQueryState(['begin'])?.status).toBe('error'))
    askWhatMayDiffer(client)
    await vi.waitFor(() => expect(client.getQueryData(['begin'])).toBe('where to begin'))
  })
})

describe('an answer that came late', () => {
  it.each([
    ['/api/jobs/a', ['job', 'a']],
    ['/api/rack', ['rack']],
    ['/api/tables/imperial', ['tables']],
    ['/api/jobs/a/pictures/b', undefined],
    ['/jobs/a', undefined],
  ])('of %s is the one of %j', (path, key) => {
    expect(askedAt(path)).toEqual(key)
  })

  it('has its own query asked again and no other', async () => {
    const [job, other] = [vi.fn(async () => Promise.resolve('a')), vi.fn(async () => Promise.resolve('b'))]
    for (const [id, queryFn] of Object.entries({ a: job, b: other }))
      new QueryObserver(client, { queryKey: ['job', id], queryFn }).subscribe(() => undefined)
    await vi.waitFor(() => expect(client.getQueryData(['job', 'b'])).toBe('b'))
    askOf(client, '/api/jobs/a')
    await vi.waitFor(() => expect(job).toHaveBeenCalledTimes(2))
    expect(other).toHaveBeenCalledTimes(1)
  })
})
