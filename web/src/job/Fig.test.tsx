// @vitest-environment jsdom
import { cleanup, render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { afterEach, expect, it, vi } from 'vitest'
import type { Figure, Schemas } from '../api/client'
import { Fig } from './Fig'

const { bench } = vi.hoisted(() => ({
  bench: { answer: {} as { data?: unknown; isError: boolean }, asked: vi.fn(), alone: false },
}))

const seen: Schemas['FigureSeen'] = {
  id: 'heat.target',
  name: 'Target',
  unit: 'celsius',
  shown: { number: '325', unit: '°C' },
  certainty: 'computed',
}

vi.mock('@tanstack/react-query', async (original) => ({
  ...(await original<object>()),
  useQuery: ({ queryKey }: { queryKey: unknown[] }) => {
    bench.asked(queryKey)
    return bench.answer
  },
}))
vi.mock('./JobContext', () => ({
  useJob: () => ({
    view: { id: 'a-job', revision: 3, readings: 7, plan: { figures: [seen] } },
    asIf: 'gray',
  }),
}))
vi.mock('./ShopContext', () => ({ useShop: () => ({ revision: 2, units: 'metric' }) }))
vi.mock('./useAlone', () => ({ useAlone: () => bench.alone }))

afterEach(() => {
  cleanup()
  vi.clearAllMocks()
  bench.alone = false
})

const whole: Figure = {
  ...seen,
  note: '',
  metric: { number: '325', unit: '°C' },
  imperial: { number: '620', unit: '°F' },
  value: 325,
  formula: ['300 + 25 for the wall'],
  facts: [{ name: 'Wall', text: '14 mm' }],
  source: { kind: 'house' },
}

it('asks for its working only once it is pressed, of the plan as it stands', async () => {
  bench.answer = { data: whole, isError: false }
  render(<Fig id="heat.target" />)
  expect(screen.getByTestId('figure.heat.target').textContent).toContain('325')
  expect(bench.asked).not.toHaveBeenCalled()
  await userEvent.click(screen.getByTestId('figure.heat.target'))
  const stands = { revision: 3, readings: 7, shop: 2, units: 'metric', iron: 'gray' }
  expect(bench.asked).toHaveBeenCalledWith(['figure', 'a-job', 'heat.target', stands])
  expect(screen.getByTestId('why-sentence').textContent).toContain('wall 14 mm')
  expect(screen.getByText('300 + 25 for the wall')).toBeDefined()
})

it('says that it cannot be asked while the server is not reached, and keeps the figure', async () => {
  bench.answer = { isError: true }
  render(<Fig id="heat.target" />)
  await userEvent.click(screen.getByTestId('figure.heat.target'))
  expect(screen.getByRole('status').textContent).toContain('The server is not reached')
  expect(screen.getByRole('dialog').textContent).toContain('325')
})

it('is yours to say for whoever practises alone, and said to be unknown where it is', () => {
  bench.alone = true
  const { unmount } = render(<Fig id="heat.target" />)
  expect(screen.getByText('yours to say')).toBeDefined()
  unmount()
  bench.alone = false
  render(<Fig id="heat.soak" otherwise="not yet" />)
  expect(screen.getByText('not yet')).toBeDefined()
})
