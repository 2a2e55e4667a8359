// @vitest-environment jsdom
import { cleanup, render, type RenderResult } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { holdIsOnePress } from '../ui/held-keys'
import { useRef } from 'react'
import { CardContext, WORK_SURFACE } from '../ui/focus'
import { OnTop } from '../ui/OnTop'
import { Plate } from '../ui/Plate'
import { Why } from '../ui/Why'
import { Shortcuts } from './Shortcuts'

const went = vi.fn()
const pressed = vi.fn()
const units = vi.fn()

vi.mock('react-router', () => ({ useNavigate: () => went }))
vi.mock('./useToggleUnits', () => ({ useToggleUnits: () => units }))

const FIGURE = { id: 'heat.target', name: 'Preheat', shown: { number: '300', unit: '°C' } }

function Page({ gate = false, covered = false }) {
  const card = useRef<HTMLElement>(null)
  return (
    <>
      <Shortcuts />
      <main {...WORK_SURFACE}>
        <Plate onPress={pressed} gate={gate}>
          Measure the wall
        </Plate>
        <input aria-label="Find" />
        <button type="button">Other</button>
      </main>
      {covered && <OnTop />}
      <Why figure={FIGURE} inside="Elsewhere">
        4
      </Why>
      <CardContext value={card}>
        <aside ref={card}>
          <Why figure={FIGURE} inside="On the card">
            8
          </Why>
        </aside>
      </CardContext>
    </>
  )
}

let shown: RenderResult

beforeEach(() => {
  window.history.replaceState(null, '', '/jobs/a-job/part')
  shown = render(<Page />)
  document.getElementById('work')?.focus()
})

afterEach(() => {
  cleanup()
  vi.clearAllMocks()
})

describe('the keys of a page', () => {
  it('Enter on the work presses the plate, once a press', async () => {
    await userEvent.keyboard('{Enter}')
    expect(pressed).toHaveBeenCalledTimes(1)
  })

  it('Enter that moved the keys presses nothing there', async () => {
    const there = document.querySelectorAll('button')[1]
    const clicked = vi.fn()
    there?.addEventListener('click', clicked)
    pressed.mockImplementation(() => there?.focus())
    await userEvent.keyboard('{Enter}')
    expect(document.activeElement).toBe(there)
    expect(clicked).not.toHaveBeenCalled()
  })

  it('Enter elsewhere brings the keys to what gates, and says nothing; on itself it says it', async () => {
    shown.rerender(<Page gate />)
    const answer = document.querySelector('button')
    await userEvent.keyboard('{Enter}')
    expect(pressed).not.toHaveBeenCalled()
    expect(document.activeElement).toBe(answer)
    await userEvent.keyboard('{Enter}')
    expect(pressed).toHaveBeenCalledTimes(1)
  })

  it('while something lies on the page they are its own', async () => {
    shown.rerender(<Page covered />)
    await userEvent.keyboard('{Enter}2u')
    expect(pressed).not.toHaveBeenCalled()
    expect(went).not.toHaveBeenCalled()
    shown.rerender(<Page />)
    await userEvent.keyboard('{Enter}')
    expect(pressed).toHaveBeenCalledTimes(1)
  })

  it('w asks the card why, and not what else can be asked', async () => {
    await userEvent.keyboard('w')
    expect(document.querySelector('[role=dialog]')?.textContent).toContain('On the card')
    // It lies on the page now: letters are its own until it is shut.
    await userEvent.keyboard('2{Escape}')
    expect(went).not.toHaveBeenCalled()
    await userEvent.keyboard('2')
    expect(went.mock.calls).toEqual([['/jobs/a-job/iron']])
  })

  it('a held Enter is one press', () => {
    holdIsOnePress()
    const hold = (repeat: boolean) =>
      document.activeElement?.dispatchEvent(
        new KeyboardEvent('keydown', { key: 'Enter', repeat, bubbles: true, cancelable: true }),
      )
    hold(false)
    for (let times = 0; times < 20; times += 1) hold(true)
    expect(pressed).toHaveBeenCalledTimes(1)
  })

  it('digits lead to stations, letters to places, and neither while something is typed', async () => {
    await userEvent.keyboard('20')
    expect(went.mock.calls).toEqual([['/jobs/a-job/iron'], ['/jobs/a-job/hand-over']])
    await userEvent.keyboard('u')
    expect(units).toHaveBeenCalledTimes(1)
    went.mockClear()
    document.querySelector('input')?.focus()
    await userEvent.keyboard('2u')
    expect(went).not.toHaveBeenCalled()
    expect(units).toHaveBeenCalledTimes(1)
    expect(document.querySelector('input')?.value).toBe('2u')
  })
})
