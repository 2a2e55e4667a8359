// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from '@testing-library/react'
import { afterEach, expect, it, vi } from 'vitest'
import type { Schemas } from '../../../api/client'
import { WhereToBegin } from './WhereToBegin'

afterEach(cleanup)

const nowhere = { at: null, swept: false }

const place = (name: string, x_mm: number, swept = false) =>
  ({
    name,
    at: { x_mm, y_mm: 20 },
    swept,
    state: 'shut',
    minutes_words: '4 min',
    share_words: 'under 0.4',
    gap_words: 'shut',
  }) as Schemas['Beginning']

it('says that it is being tried only while it is', () => {
  const { rerender } = render(
    <WhereToBegin beginnings={null} isLost={false} flame={nowhere} onChoose={vi.fn()} />,
  )
  expect(screen.getByText(/Trying the flame/)).toBeTruthy()
  rerender(<WhereToBegin beginnings={null} isLost flame={nowhere} onChoose={vi.fn()} />)
  expect(screen.getByText(/could not be asked for/)).toBeTruthy()
  expect(screen.queryByText(/Trying/)).toBeNull()
})

it('marks where the flame is, and takes it to the place that is pressed', () => {
  const chosen = vi.fn()
  const places = [place('Beside the break', 10), place('Opposite', 90), place('Opposite, swept', 90, true)]
  const beginnings = { sentence: 'Begin beside the break.', places, tried: 9 } as Schemas['Beginnings']
  render(
    <WhereToBegin
      beginnings={beginnings}
      isLost={false}
      flame={{ at: { x_mm: 90.4, y_mm: 20 }, swept: false }}
      onChoose={chosen}
    />,
  )
  const marked = screen.getAllByRole('button').map((it) => it.getAttribute('aria-pressed'))
  expect(marked).toEqual(['false', 'true', 'false'])
  fireEvent.click(screen.getByRole('button', { name: /Opposite, swept/ }))
  expect(chosen).toHaveBeenCalledWith(places[2])
})
