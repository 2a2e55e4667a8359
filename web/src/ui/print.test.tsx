// @vitest-environment jsdom
import { act, cleanup, render, screen } from '@testing-library/react'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { print, usePaper, usePrinter } from './print'

function Printer() {
  usePrinter()
  return <p>{usePaper() ?? 'nothing'}</p>
}

/** What lay in the printer when it printed. */
const printed = vi.fn()

beforeEach(() => {
  vi.stubGlobal('matchMedia', () => ({
    addEventListener: () => undefined,
    removeEventListener: () => undefined,
  }))
  vi.stubGlobal('print', () => printed(screen.getByRole('paragraph').textContent))
  render(<Printer />)
})

afterEach(() => {
  cleanup()
  printed.mockClear()
  vi.unstubAllGlobals()
})

const said = () => [screen.getByRole('paragraph').textContent, document.documentElement.dataset['print']]

it('nothing is laid out while nothing is printed', () => {
  expect(said()).toEqual(['nothing', undefined])
})

it('a paper is laid out before it is printed, and taken away after', async () => {
  await act(() => print('strip'))
  expect(printed.mock.calls).toEqual([['strip']])
  act(() => window.dispatchEvent(new Event('afterprint')))
  expect(said()).toEqual(['nothing', undefined])
})

it("the browser's own print finds the card, at once", () => {
  act(() => window.dispatchEvent(new Event('beforeprint')))
  expect(said()).toEqual(['card', 'card'])
})

it('a picture that cannot be read keeps nothing from being printed', async () => {
  const picture = document.createElement('img')
  Object.assign(picture, { decode: () => Promise.reject(new Error('torn')) })
  Object.defineProperty(picture, 'complete', { value: false })
  document.body.append(picture)
  await act(() => print('label'))
  picture.remove()
  expect(printed.mock.calls).toEqual([['label']])
})
