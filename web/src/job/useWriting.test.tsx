// @vitest-environment jsdom
import { act, cleanup, renderHook } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Change } from '../api/client'
import { useWriting } from './useWriting'

const { box } = vi.hoisted(() => ({
  box: {
    reached: true,
    waiting: [] as { id: string }[],
    refusals: [] as { id: string; problem: { field: string; message: string; would_be_right: string } }[],
    heard: new Set<() => void>(),
    say: vi.fn(() => {
      box.waiting = [{ id: 'a-word' }]
      return 'a-word'
    }),
    dismiss: vi.fn(() => {
      box.refusals = []
    }),
  },
}))

vi.mock('../api/queue/outbox', () => ({
  outbox: {
    now: () => box,
    dismiss: box.dismiss,
    subscribe: (look: () => void) => {
      box.heard.add(look)
      return () => box.heard.delete(look)
    },
  },
}))
vi.mock('./JobContext', () => ({ useJob: () => ({ say: box.say }) }))

const ASKED: Change = { kind: 'follow_up', became: 'holds' }
const tell = () => act(() => [...box.heard].forEach((look) => look()))

beforeEach(() => {
  Object.assign(box, { reached: true, waiting: [], refusals: [] })
  box.heard.clear()
})

afterEach(() => {
  cleanup()
  vi.clearAllMocks()
})

describe('a form that writes one thing down', () => {
  it('is done once it is taken, and a second press meanwhile is none', () => {
    const done = vi.fn()
    const { result } = renderHook(() => useWriting(done))
    act(() => result.current.write(ASKED))
    act(() => result.current.write(ASKED))
    expect(box.say).toHaveBeenCalledTimes(1)
    tell()
    expect(done).not.toHaveBeenCalled()
    box.waiting = []
    tell()
    expect(done).toHaveBeenCalledTimes(1)
  })

  it('is done at once where it is kept for a server that is not reached', () => {
    const done = vi.fn()
    box.reached = false
    const { result } = renderHook(() => useWriting(done))
    act(() => result.current.write(ASKED))
    expect(done).toHaveBeenCalledTimes(1)
  })

  it('says what was wrong at its field and takes it out of the tray; then it can be written again', () => {
    const done = vi.fn()
    const { result } = renderHook(() => useWriting(done))
    act(() => result.current.write(ASKED))
    const problem = { field: 'after', message: 'too long', would_be_right: 'a few words' }
    Object.assign(box, { waiting: [], refusals: [{ id: 'a-word.0', problem }] })
    tell()
    expect(done).not.toHaveBeenCalled()
    expect(result.current.problems).toEqual([problem])
    expect(box.dismiss).toHaveBeenCalledTimes(1)
    act(() => result.current.write(ASKED))
    expect(box.say).toHaveBeenCalledTimes(2)
    expect(result.current.problems).toEqual([])
  })
})
