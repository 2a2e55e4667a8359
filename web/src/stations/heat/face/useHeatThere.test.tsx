// @vitest-environment jsdom
import { QueryClient, QueryClientProvider, queryOptions } from '@tanstack/react-query'
import { act, cleanup, renderHook } from '@testing-library/react'
import { createElement, type ReactNode } from 'react'
import { afterEach, expect, it, vi } from 'vitest'
import { heldAt, UNSAID, type Flame } from './flame'
import { useHeatThere } from './useHeatThere'

const { bench } = vi.hoisted(() => ({
  bench: {
    asked: [] as { what: string; revision: unknown; answer: (words: string) => void; fail: () => void }[],
  },
}))

vi.mock('../../../api/queries', () => {
  const query =
    (what: string) =>
    (...key: unknown[]) =>
      queryOptions({
        queryKey: [what, ...key],
        queryFn: () =>
          new Promise((resolve, reject) => {
            const answer = (sentence: string) => resolve({ why_not: '', heat: { sentence } })
            bench.asked.push({ what, revision: key[1], answer, fail: () => reject(new Error('gone')) })
          }),
        staleTime: Infinity,
        retry: false,
      })
  return { faceWarmthQuery: query('warmth'), faceHeatQuery: query('heat') }
})

afterEach(() => {
  cleanup()
  bench.asked = []
})

interface Stood {
  revision: number
  flame: Flame
}

function there() {
  const client = new QueryClient()
  const wrapper = ({ children }: { children: ReactNode }) =>
    createElement(QueryClientProvider, { client }, children)
  return renderHook(
    ({ revision, flame }: Stood) => useHeatThere(['a-job', revision, 1, 'metric'], flame, true),
    { wrapper, initialProps: { revision: 1, flame: UNSAID } },
  )
}

const asked = () => bench.asked.map((it) => `${it.what} ${it.revision}`)
const last = (does: 'answer' | 'fail', words = '') => act(async () => bench.asked.at(-1)?.[does](words))
const comes = (...what: string[]) => vi.waitFor(() => expect(asked()).toEqual(what))

it('has the picture first, and then what it asks of the cracks', async () => {
  const { result } = there()
  expect(result.current.isPending).toBe(true)
  await last('answer')
  await comes('warmth 1', 'heat 1')
  expect(result.current).toMatchObject({ isPending: false, isJudged: false, isOld: false, wasJudged: false })
  await last('answer', 'each tip stays under')
  await vi.waitFor(() => expect(result.current.heat?.sentence).toBe('each tip stays under'))
  expect(result.current).toMatchObject({ isJudged: true, isOld: false, wasJudged: true })
})

it('keeps what is there while the flame is put elsewhere, until the picture comes', async () => {
  const { result, rerender } = there()
  await last('answer')
  await comes('warmth 1', 'heat 1')
  await last('answer', 'here')
  await vi.waitFor(() => expect(result.current.isJudged).toBe(true))
  rerender({ revision: 1, flame: heldAt({ x_mm: 3, y_mm: 4 }) })
  expect(result.current.heat?.sentence).toBe('here')
  expect(result.current).toMatchObject({ isOld: true, isPending: false, wasJudged: true })
  await comes('warmth 1', 'heat 1', 'warmth 1')
  await last('answer')
  await vi.waitFor(() => expect(result.current.isJudged).toBe(false))
  expect(result.current.isOld).toBe(false)
  // Its words keep their room.
  expect(result.current.judged?.sentence).toBe('here')
})

it('asks at once what the cracks are asked where only something was said of the job', async () => {
  const { result, rerender } = there()
  await last('answer')
  await comes('warmth 1', 'heat 1')
  await last('answer', 'here')
  await vi.waitFor(() => expect(result.current.isJudged).toBe(true))
  rerender({ revision: 2, flame: UNSAID })
  await comes('warmth 1', 'heat 1', 'heat 2')
  expect(result.current).toMatchObject({ isOld: true, isJudged: true })
})

it('does not say that it is being worked out what could not be asked for', async () => {
  const { result } = there()
  await last('answer', 'as it is')
  await comes('warmth 1', 'heat 1')
  expect(result.current.isLost).toBe(false)
  await last('fail')
  await vi.waitFor(() => expect(result.current.isLost).toBe(true))
  expect(result.current).toMatchObject({ isJudged: false, isPending: false })
  expect(result.current.heat?.sentence).toBe('as it is')
})

it('does without the picture where it could not be had, and says so where nothing could', async () => {
  const { result } = there()
  await last('fail')
  await comes('warmth 1', 'heat 1')
  expect(result.current.isPending).toBe(true)
  await last('fail')
  await vi.waitFor(() => expect(result.current.isPending).toBe(false))
  expect(result.current.heat).toBeNull()
})
