// @vitest-environment jsdom
import { cleanup, render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Schemas } from '../api/client'
import type { FieldView } from '../api/fields'
import type { Refusal, Waiting } from '../api/queue/outbox'
import { Field } from './Field'

const { bench } = vi.hoisted(() => ({
  bench: {
    stored: { typed: '14', revision: 3 } as Schemas['FieldHeld'],
    waiting: [] as unknown[],
    refusals: [] as unknown[],
    say: vi.fn(),
    dismiss: vi.fn(),
  },
}))

vi.mock('../api/queue/outbox', () => ({ outbox: { dismiss: bench.dismiss } }))
vi.mock('./AskedBack', () => ({ AskedBack: () => null }))
vi.mock('./ShopContext', () => ({ useShop: () => ({ units: 'metric' }) }))
vi.mock('./JobContext', () => ({
  useRefusals: () => bench.refusals,
  useJob: () => ({
    view: { id: 'a-job' },
    waiting: bench.waiting,
    say: bench.say,
    field: () =>
      ({
        key: 'part.wall',
        label: 'Wall at the break',
        asks_for: 'length',
        example: '12 mm',
        choices: [],
        unit_metric: 'mm',
        unit_imperial: 'in',
        metric: null,
        imperial: null,
        ...bench.stored,
      }) as unknown as FieldView,
  }),
}))

const set = (typed: string) => ({ kind: 'set', key: 'part.wall', typed, shown_in: 'metric' }) as const
const input = () => screen.getByLabelText(/^Wall at the break/)

beforeEach(() => {
  sessionStorage.clear()
  bench.stored = { typed: '14', revision: 3 }
  bench.waiting = []
  bench.refusals = []
})
afterEach(() => {
  cleanup()
  vi.clearAllMocks()
})

describe('a field of the job', () => {
  it('says what was typed, and what it replaces as it stood when the typing began', async () => {
    const { rerender } = render(<Field name="part.wall" />)
    await userEvent.click(input())
    // Somebody else says something else meanwhile.
    bench.stored = { typed: '13', revision: 4 }
    rerender(<Field name="part.wall" />)
    await userEvent.clear(input())
    await userEvent.type(input(), '15{Enter}')
    expect(bench.say.mock.calls).toEqual([[set('15'), 3]])
  })

  it('shows what waits for the server in place of what is stored', () => {
    bench.waiting = [{ id: 'one', change: set('15') } as unknown as Waiting]
    render(<Field name="part.wall" />)
    expect(input()).toHaveProperty('value', '15')
    expect(screen.getByText('waiting')).toBeDefined()
  })

  it('keeps what was refused, says why, and lets that go once it is said anew', async () => {
    const problem = { field: 'part.wall', message: 'too thick', would_be_right: '1 to 500 mm' }
    const refusal = { id: 'one.0', field: 'part.wall', typed: '9 m', problem, change: set('9 m') }
    bench.refusals = [refusal as unknown as Refusal]
    render(<Field name="part.wall" />)
    expect(input()).toHaveProperty('value', '9 m')
    expect(screen.getByRole('alert').textContent).toContain('too thick. 1 to 500 mm would do.')
    expect(input().getAttribute('aria-invalid')).toBe('true')
    await userEvent.clear(input())
    await userEvent.type(input(), '90{Enter}')
    expect(bench.dismiss).toHaveBeenCalledWith(refusal)
    // Both were seen: what stands now is replaced.
    expect(bench.say.mock.calls).toEqual([[set('90'), 3]])
  })

  it('shows what was taken once and is not understood any more', () => {
    bench.stored = { typed: '14 hands', revision: 3, not_understood: 'that is no length' }
    render(<Field name="part.wall" />)
    expect(input()).toHaveProperty('value', '14 hands')
    expect(screen.getByRole('alert').textContent).toContain('that is no length')
  })
})
