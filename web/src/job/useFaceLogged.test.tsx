// @vitest-environment jsdom
import { QueryClient, QueryClientProvider, keepPreviousData, queryOptions } from '@tanstack/react-query'
import { act, cleanup, renderHook } from '@testing-library/react'
import { createElement, type ReactNode } from 'react'
import { afterEach, expect, it, vi } from 'vitest'
import { useFaceLogged } from './useFaceLogged'

const { bench } = vi.hoisted(() => ({
  bench: {
    revision: 1,
    minutes: 0,
    asked: [] as { key: string; tell: (words: string) => void; fail: () => void }[],
  },
}))

vi.mock('./JobContext', () => ({
  useJob: () => ({ view: { id: 'a-job', revision: bench.revision } }),
  useLive: () => ({ live: { minutes: bench.minutes } }),
}))
vi.mock('./ShopContext', () => ({ useShop: () => ({ revision: 1, units: 'metric' }) }))
vi.mock('../api/queries', () => ({
  faceLoggedQuery: (...key: unknown[]) =>
    queryOptions({
      queryKey: ['face-logged', ...key],
      queryFn: () =>
        new Promise((resolve, reject) => {
          const tell = (sentence: string) => resolve({ why_not: '', heat: { sentence } })
          const fail = () => reject(new Error('gone'))
          bench.asked.push({ key: `${key[1]} ${key[4]}`, tell, fail })
        }),
      placeholderData: keepPreviousData,
      staleTime: Infinity,
      retry: false,
    }),
}))

afterEach(() => {
  cleanup()
  Object.assign(bench, { revision: 1, minutes: 0, asked: [] })
})

function logged() {
  const client = new QueryClient()
  const wrapper = ({ children }: { children: ReactNode }) =>
    createElement(QueryClientProvider, { client }, children)
  return renderHook(() => useFaceLogged(), { wrapper })
}

const keys = () => bench.asked.map((it) => it.key)
const answered = (place: number, words: string) =>
  act(async () => {
    bench.asked[place]?.tell(words)
    await vi.dynamicImportSettled()
  })

it('is answered while the log grows faster than it is worked out, and asked anew then', async () => {
  const { result, rerender } = logged()
  expect(result.current.isPending).toBe(true)
  for (bench.minutes = 2; bench.minutes < 12; bench.minutes += 2) rerender()
  expect(keys()).toEqual(['1 0'])
  await answered(0, 'up to now')
  await vi.waitFor(() => expect(keys()).toEqual(['1 0', '1 6']))
  expect(result.current.heat?.sentence).toBe('up to now')
  expect(result.current.isOld).toBe(true)
  bench.minutes = 13
  rerender()
  await answered(1, 'later')
  await vi.waitFor(() => expect(result.current.heat?.sentence).toBe('later'))
  expect(result.current.isOld).toBe(false)
  expect(keys()).toHaveLength(2)
})

it('shows what was said meanwhile as not yet worked in', async () => {
  const { result, rerender } = logged()
  await answered(0, 'before')
  await vi.waitFor(() => expect(result.current.isOld).toBe(false))
  bench.revision = 2
  rerender()
  expect(result.current.heat?.sentence).toBe('before')
  expect(result.current.isOld).toBe(true)
  await vi.waitFor(() => expect(keys()).toEqual(['1 0', '2 0']))
})

it('keeps what was known where the next could not be asked for, and does not call it new', async () => {
  const { result, rerender } = logged()
  await answered(0, 'likely to run on')
  await vi.waitFor(() => expect(result.current.isOld).toBe(false))
  bench.minutes = 2
  rerender()
  await vi.waitFor(() => expect(keys()).toEqual(['1 0', '1 1']))
  await act(async () => bench.asked[1]?.fail())
  await vi.waitFor(() => expect(result.current.isLost).toBe(true))
  expect(result.current).toMatchObject({ isOld: true, isPending: false })
  expect(result.current.heat?.sentence).toBe('likely to run on')
  bench.minutes = 4
  rerender()
  await vi.waitFor(() => expect(keys()).toEqual(['1 0', '1 1', '1 2']))
  await answered(2, 'each tip stayed under')
  await vi.waitFor(() => expect(result.current.heat?.sentence).toBe('each tip stayed under'))
  expect(result.current.isOld).toBe(false)
})

it('is lost, and not empty, where the first could not be asked for', async () => {
  const { result } = logged()
  await act(async () => bench.asked[0]?.fail())
  await vi.waitFor(() => expect(result.current.isLost).toBe(true))
  expect(result.current).toMatchObject({ heat: null, isPending: false })
})
