// @vitest-environment jsdom
import { cleanup, render, screen } from '@testing-library/react'
import { afterEach, expect, it, vi } from 'vitest'
import type { Schemas } from '../../api/client'
import { Sessions } from './Sessions'

const { bench } = vi.hoisted(() => ({
  bench: { booked: undefined as undefined | { sessions: string[]; ready: string }, asked: vi.fn() },
}))

vi.mock('@tanstack/react-query', async (original) => ({
  ...(await original<object>()),
  useQuery: ({ enabled }: { enabled: boolean }) => {
    bench.asked(enabled)
    return { data: bench.booked }
  },
}))
vi.mock('../../job/JobContext', () => ({ useJob: () => ({ view: { id: 'a-job', revision: 3 } }) }))
vi.mock('../../job/ShopContext', () => ({ useShop: () => ({ revision: 1 }) }))

const session = (from: number, words: string) => ({ from, to: from, words, too_long: false })
const methods = (...sessions: ReturnType<typeof session>[]) =>
  ({ sessions, between_sessions: '' }) as unknown as Schemas['MethodPlan']
const two = methods(
  session(1, 'Mon 9 Mar, 8:00: beads 1 to 9'),
  session(10, 'Tue 10 Mar, 8:00: beads 10 to 18'),
)

afterEach(() => {
  cleanup()
  vi.clearAllMocks()
  bench.booked = undefined
})

const lines = () => screen.getAllByRole('listitem').map((it) => it.textContent)

it('says when each is booked, where another job has the hands before, and when it is ready then', () => {
  const waits = 'Booked for Mon 9 Mar, 11:00: before it the hands are at Gate.'
  bench.booked = { sessions: [waits, ''], ready: 'Ready then Wed 11 Mar, 8:00.' }
  render(<Sessions methods={two} />)
  expect(lines()).toEqual([`Mon 9 Mar, 8:00: beads 1 to 9. ${waits}`, 'Tue 10 Mar, 8:00: beads 10 to 18'])
  expect(screen.getByTestId('booked-ready').textContent).toBe('Ready then Wed 11 Mar, 8:00.')
})

it('shows them as they are planned while nothing else is known', () => {
  render(<Sessions methods={two} />)
  expect(lines()).toEqual(['Mon 9 Mar, 8:00: beads 1 to 9', 'Tue 10 Mar, 8:00: beads 10 to 18'])
  expect(screen.queryByTestId('booked-ready')).toBeNull()
})

it('asks nothing and shows nothing where there is no session', () => {
  const { container } = render(<Sessions methods={methods()} />)
  expect(container.textContent).toBe('')
  expect(bench.asked).toHaveBeenCalledWith(false)
})
