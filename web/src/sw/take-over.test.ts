import { describe, expect, it, vi } from 'vitest'
import { takeOver } from './take-over'

vi.stubGlobal('CLAIM', 'claim')

function workers(controller: unknown) {
  const postMessage = vi.fn()
  const container = {
    controller,
    register: vi.fn(async () => Promise.resolve()),
    ready: Promise.resolve({ active: { postMessage } }),
  }
  return { container: container as unknown as ServiceWorkerContainer, postMessage }
}

describe('a page', () => {
  it('that the worker did not take over asks for it', async () => {
    const { container, postMessage } = workers(null)
    await takeOver(container)
    expect(postMessage).toHaveBeenCalledExactlyOnceWith('claim')
  })

  it('that it serves already asks for nothing', async () => {
    const { container, postMessage } = workers({})
    await takeOver(container)
    expect(postMessage).not.toHaveBeenCalled()
  })

  it('without a worker says so', async () => {
    const { container } = workers(null)
    container.register = vi.fn(async () => Promise.reject(new Error('not over plain http')))
    await expect(takeOver(container)).rejects.toThrow('plain http')
  })
})
