import { QueryClient, QueryObserver } from '@tanstack/react-query'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { askAgain } from './ask-again'

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
