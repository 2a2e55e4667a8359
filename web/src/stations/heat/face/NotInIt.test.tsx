// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from '@testing-library/react'
import { afterEach, expect, it } from 'vitest'
import { NotInIt } from './NotInIt'

afterEach(cleanup)

it('says what to mind, and folds in what is left out', () => {
  render(<NotInIt words="Flat, elastic." tried={5} />)
  expect(screen.getByText(/look and listen at each tip/).closest('details')).toBeNull()
  const folded = screen.getByText('Flat, elastic.').closest('details')
  expect(folded?.open).toBe(false)
  fireEvent.click(screen.getByText('What is not in it'))
  expect(folded?.open).toBe(true)
  expect(folded?.textContent).toContain('5 places were tried')
})

it('names no places where none were tried', () => {
  render(<NotInIt words="Flat, elastic." />)
  expect(screen.queryByText(/were tried/)).toBeNull()
})
