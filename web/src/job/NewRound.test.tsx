// @vitest-environment jsdom
import { cleanup, render, screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { NewRound } from './NewRound'

const { bench } = vi.hoisted(() => ({ bench: { say: vi.fn(() => 'a-word'), cracks: [] as unknown[] } }))

vi.mock('./JobContext', () => ({
  useJob: () => ({
    view: { id: 'a-job', job: { rounds: [{}] }, plan: { cracks: bench.cracks } },
    say: bench.say,
  }),
}))
vi.mock('./ShopContext', () => ({ useShop: () => ({ units: 'metric' }) }))
vi.mock('./Field', () => ({ Field: ({ name }: { name: string }) => <p>{name}</p> }))
vi.mock('react-router', () => ({ useNavigate: () => vi.fn() }))

const crack = (letter: string, becomes = 'repair') => ({ id: `crack-${letter}`, letter, becomes })
const said = () => bench.say.mock.calls.map(([change]: unknown[]) => change)

afterEach(() => {
  cleanup()
  vi.clearAllMocks()
})

describe('a new round', () => {
  it('of one seam asks no further: it is the one that failed', async () => {
    bench.cracks = [crack('A')]
    render(<NewRound reason="it failed in use" />)
    expect(screen.queryByRole('list')).toBeNull()
    await userEvent.click(screen.getByRole('button', { name: /Open round 2/ }))
    expect(said()).toEqual([{ kind: 'new_round', reason: 'it failed in use' }])
  })

  it('leaves the seams alone that were said to be sound, once it is open', async () => {
    bench.cracks = [crack('A'), crack('B'), crack('C', 'leave')]
    render(<NewRound reason="it failed in use" cause />)
    expect(screen.getByText('part.cause')).toBeDefined()
    expect(within(screen.getByRole('list')).queryByText('C')).toBeNull()
    await userEvent.click(within(screen.getByLabelText('Seam B')).getByText('Still sound'))
    await userEvent.click(screen.getByRole('button', { name: /Open round 2/ }))
    expect(said()).toEqual([
      { kind: 'new_round', reason: 'it failed in use' },
      { kind: 'set', key: 'crack.crack-B.becomes', typed: 'sound', shown_in: 'metric' },
    ])
  })
})
