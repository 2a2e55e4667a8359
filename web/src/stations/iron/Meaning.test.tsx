// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from '@testing-library/react'
import { afterEach, expect, it, vi } from 'vitest'
import { Meaning } from './Meaning'

const { iron } = vi.hoisted(() => ({
  iron: {
    steps: [] as unknown[],
    meaning: ['Graphite in flakes: brittle.', 'It may still be steel.'],
    demands: [{ what: 'Warm preheat', asks: '200 °C', forced_by: 'ductile' }],
  },
}))

vi.mock('../../job/JobContext', () => ({ useJob: () => ({ view: { plan: { iron } } }) }))

afterEach(() => {
  cleanup()
  iron.steps = []
})

it('lies folded in before any test, and is opened by a press', () => {
  render(<Meaning />)
  expect(screen.getByText('Graphite in flakes: brittle.')).toBeTruthy()
  expect(screen.queryByText('It may still be steel.')).toBeNull()
  fireEvent.click(screen.getByRole('button', { name: /Before any test/ }))
  expect(screen.getByText('It may still be steel.')).toBeTruthy()
  expect(screen.getByText('200 °C')).toBeTruthy()
})

it('stands there by itself once something was tested', () => {
  iron.steps = [{}]
  render(<Meaning />)
  expect(screen.getByText('It may still be steel.')).toBeTruthy()
  expect(screen.queryByRole('button')).toBeNull()
})
