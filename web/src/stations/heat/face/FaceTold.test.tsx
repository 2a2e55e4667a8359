// @vitest-environment jsdom
import { cleanup, render, screen } from '@testing-library/react'
import { afterEach, expect, it } from 'vitest'
import { FaceTold } from './FaceTold'

afterEach(cleanup)

const told = { sentence: 'What that asks of the cracks is being worked out.', beneath: '' }
const before = { sentence: 'Here it can begin.', beneath: 'Roofing burner, propane.' }

it('keeps the room of what was said before, and does not say it', () => {
  const { container, rerender } = render(<FaceTold told={told} before={before} />)
  expect(screen.getAllByRole('heading').map((it) => it.textContent)).toEqual([told.sentence])
  const kept = container.querySelector('[aria-hidden]')
  expect(kept?.textContent).toBe('Here it can begin.Roofing burner, propane.')
  expect(kept?.className).toContain('invisible')
  rerender(<FaceTold told={before} before={null} />)
  expect(container.querySelector('[aria-hidden]')).toBeNull()
  expect(screen.getByTestId('face-sentence').textContent).toBe(before.sentence)
})
