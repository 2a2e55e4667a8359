// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from '@testing-library/react'
import { afterEach, expect, it, vi } from 'vitest'
import { FaceDown } from './FaceDown'

const { bench } = vi.hoisted(() => ({
  bench: { faces: [] as unknown[], answer: {} as object, asked: vi.fn() },
}))

vi.mock('@tanstack/react-query', async (original) => ({
  ...(await original<object>()),
  useQuery: ({ enabled }: { enabled: boolean }) => {
    bench.asked(enabled)
    return bench.answer
  },
}))
vi.mock('../../job/JobContext', () => ({
  useJob: () => ({ view: { id: 'a-job', revision: 3, plan: { map: { faces: bench.faces } } } }),
}))
vi.mock('../../job/ShopContext', () => ({ useShop: () => ({ revision: 1, units: 'metric' }) }))
vi.mock('../../job/face/FaceMoments', () => ({
  FaceMoments: ({ put }: { put: unknown }) => <p data-testid="moments">{String(put)}</p>,
}))

const drawn = { rims: [[]], lines: [{}] }
const open = () => fireEvent.click(screen.getByRole('button', { name: /The face as it cools/ }))

afterEach(() => {
  cleanup()
  vi.clearAllMocks()
  bench.faces = []
  bench.answer = {}
})

it('is worked out once it is opened, and shows no flame', () => {
  bench.faces = [drawn]
  const heat = { sentence: 'It cools evenly.', beneath: 'From 300 °C.', not_in_it: 'Flat.' }
  bench.answer = { data: { heat, why_not: '' } }
  render(<FaceDown />)
  expect(bench.asked).not.toHaveBeenCalledWith(true)
  open()
  expect(bench.asked).toHaveBeenCalledWith(true)
  expect(screen.getByTestId('face-cooling').textContent).toBe('It cools evenly.')
  expect(screen.getByTestId('moments').textContent).toBe('null')
})

it('says why none is reckoned, and that it could not be asked for', () => {
  bench.faces = [drawn]
  bench.answer = {
    data: { heat: null, why_not: 'The face is not reckoned as a body: a hollow box is not flat.' },
  }
  const { rerender } = render(<FaceDown />)
  open()
  expect(screen.getByText(/a hollow box is not flat/)).toBeTruthy()
  bench.answer = { data: { heat: null, why_not: '' } }
  rerender(<FaceDown />)
  expect(screen.getByText(/nothing on it is mended/)).toBeTruthy()
  bench.answer = { isError: true }
  rerender(<FaceDown />)
  expect(screen.getByText(/could not be asked for/)).toBeTruthy()
})

it('is not there where no face with a crack is drawn', () => {
  const { container } = render(<FaceDown />)
  expect(container.textContent).toBe('')
})
