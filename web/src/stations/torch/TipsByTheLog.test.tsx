// @vitest-environment jsdom
import { cleanup, render, screen } from '@testing-library/react'
import { afterEach, expect, it, vi } from 'vitest'
import { TipsByTheLog } from './TipsByTheLog'

const { bench } = vi.hoisted(() => ({
  bench: { faces: [] as unknown[], heat: null as unknown, asked: vi.fn() },
}))

vi.mock('../../job/JobContext', () => ({
  useJob: () => ({ view: { plan: { map: { faces: bench.faces } } } }),
}))
vi.mock('../../job/useFaceLogged', () => ({
  useFaceLogged: (enabled: boolean) => {
    bench.asked(enabled)
    return { heat: bench.heat }
  },
}))

const drawn = { rims: [[]], lines: [{}] }
const likely = 'By the log the upper tip of A was likely to run on, from about 5 min on: look at it.'

afterEach(() => {
  cleanup()
  vi.clearAllMocks()
  bench.faces = []
  bench.heat = null
})

it('says which tip is likely to run on', () => {
  bench.faces = [drawn]
  bench.heat = { asks_much: true, sentence: likely }
  render(<TipsByTheLog />)
  expect(screen.getByRole('alert').textContent).toBe(likely)
})

it('says nothing while little is asked of a tip, or nothing is known of it yet', () => {
  bench.faces = [drawn]
  for (const heat of [null, { asks_much: false, sentence: 'By the log each tip stayed under 0.4.' }]) {
    bench.heat = heat
    render(<TipsByTheLog />)
    expect(screen.queryByRole('alert')).toBeNull()
    cleanup()
  }
})

it('has nothing worked out where no face with a crack is drawn', () => {
  bench.faces = [
    { rims: [[]], lines: [] },
    { rims: [], lines: [{}] },
  ]
  render(<TipsByTheLog />)
  expect(bench.asked).toHaveBeenCalledWith(false)
  expect(bench.asked).not.toHaveBeenCalledWith(true)
})
