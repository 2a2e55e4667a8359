// @vitest-environment jsdom
import { cleanup, render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Schemas } from '../../api/client'
import { DoneCold } from './DoneCold'

const { bench } = vi.hoisted(() => ({ bench: { waiting: [] as unknown[], say: vi.fn() } }))

vi.mock('../../job/ShopContext', () => ({ useShop: () => ({ units: 'metric' }) }))
vi.mock('../../job/JobContext', () => ({
  useJob: () => ({
    view: { id: 'a-job' },
    waiting: bench.waiting,
    say: bench.say,
    field: () => ({ revision: 3 }),
  }),
}))

const ITEMS: Schemas['PrepItem'][] = [
  { id: 'holes', label: 'Stop-holes drilled', done: false },
  { id: 'groove', label: 'Groove ground', done: false },
  { id: 'inside', label: 'Inside cleaned too', done: true },
]
const set = (typed: string) => ({ kind: 'set', key: 'prep.done', typed, shown_in: 'metric' }) as const
const press = (name: string) => userEvent.click(screen.getByRole('button', { name }))
const isPressed = (name: string) => screen.getByRole('button', { name }).getAttribute('aria-pressed')

beforeEach(() => {
  bench.waiting = []
})
afterEach(() => {
  cleanup()
  vi.clearAllMocks()
})

describe('what is done before the heat', () => {
  it('adds what is pressed to what is done', async () => {
    render(<DoneCold items={ITEMS} />)
    await press('Groove ground')
    expect(bench.say.mock.calls).toEqual([[set('inside,groove'), 3]])
  })

  it('keeps what was pressed a moment before and is not with the server yet', async () => {
    bench.waiting = [{ id: 'one', job: 'a-job', change: set('inside,holes') }]
    render(<DoneCold items={ITEMS} />)
    expect(isPressed('Stop-holes drilled')).toBe('true')
    await press('Groove ground')
    expect(bench.say.mock.calls).toEqual([[set('holes,inside,groove'), 3]])
  })

  it('takes back what is pressed once more before the server has it, and leaves none of another job', async () => {
    bench.waiting = [
      { id: 'one', job: 'a-job', change: set('inside,holes') },
      { id: 'two', job: 'another', change: set('groove') },
    ]
    render(<DoneCold items={ITEMS} />)
    expect(isPressed('Groove ground')).toBe('false')
    await press('Stop-holes drilled')
    expect(bench.say.mock.calls).toEqual([[set('inside'), 3]])
  })
})
