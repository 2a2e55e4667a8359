// @vitest-environment jsdom
import { act, cleanup, render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Refusal } from '../api/queue/outbox'
import { shownFields } from './shown-fields'
import { Tray } from './Tray'

const { box } = vi.hoisted(() => ({
  box: {
    refusals: [] as unknown[],
    listeners: new Set<() => void>(),
    again: vi.fn(),
    dismiss: vi.fn(),
  },
}))

vi.mock('../api/queue/outbox', () => {
  const now = { refusals: [] as unknown[] }
  return {
    outbox: {
      subscribe: (heard: () => void) => {
        box.listeners.add(heard)
        return () => box.listeners.delete(heard)
      },
      now: () => {
        if (now.refusals !== box.refusals) return Object.assign(now, { refusals: box.refusals })
        return now
      },
      again: box.again,
      dismiss: box.dismiss,
    },
  }
})

vi.stubGlobal(
  'ResizeObserver',
  class {
    observe() {}
    disconnect() {}
  },
)

const refusal = (job: string, typed: string): Refusal => ({
  id: `${typed}.0`,
  job,
  field: 'part.wall',
  typed,
  problem: { field: 'part.wall', message: 'too thick', would_be_right: '1 to 500 mm' },
  change: { kind: 'set', key: 'part.wall', typed, shown_in: 'metric' },
  at_client_ms: 1,
})

beforeEach(() => window.history.replaceState(null, '', '/jobs/a-job/part'))
afterEach(() => {
  cleanup()
  vi.clearAllMocks()
  box.refusals = []
})

describe('what was not taken', () => {
  it('is not there while nothing was', () => {
    render(<Tray />)
    expect(screen.queryByTestId('tray')).toBeNull()
  })

  it('says what was said, why not, and what would do, the last first', () => {
    box.refusals = [refusal('a-job', '9 m'), refusal('another', '12 m')]
    render(<Tray />)
    const [last, first] = screen.getAllByRole('alert').map((it) => it.textContent)
    expect(last).toContain('12 m. too thick (1 to 500 mm)its job')
    expect(first).toContain('9 m. too thick')
    expect(first).not.toContain('its job')
  })

  it('is said again, or let go', async () => {
    const one = refusal('a-job', '9 m')
    box.refusals = [one]
    render(<Tray />)
    await userEvent.click(screen.getByText('Say it again'))
    await userEvent.click(screen.getByText('Let it go'))
    expect(box.again).toHaveBeenCalledWith(one)
    expect(box.dismiss).toHaveBeenCalledWith(one)
  })

  it('is told at its field instead where that is in sight', () => {
    box.refusals = [refusal('a-job', '9 m')]
    render(<Tray />)
    let hide = (): void => undefined
    act(() => {
      hide = shownFields.show('a-job', 'part.wall')
    })
    expect(screen.queryByTestId('tray')).toBeNull()
    act(() => hide())
    expect(screen.getByTestId('tray')).toBeDefined()
  })
})
