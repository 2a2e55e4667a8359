import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

type Listener = (event: Record<string, unknown>) => void
const ORIGIN = 'http://127.0.0.1:8420'

const claim = vi.fn(async () => undefined)
const told = vi.fn()
let listeners: Map<string, Listener>
let stores: Map<string, Map<string, Response>>
/** The server is slow: what goes on after the answer is not waited for. */
let slow = false
let background: Promise<unknown>
let answer: (address: string) => Response | Promise<Response>

const addressOf = (request: Request | string) =>
  typeof request === 'string' ? `${ORIGIN}${request}` : request.url

function storeOf(name: string) {
  const store = stores.get(name) ?? new Map<string, Response>()
  stores.set(name, store)
  return {
    addAll: async (all: Request[]) => {
      for (const request of all) store.set(addressOf(request), await answer(addressOf(request)))
    },
    match: async (request: Request | string) => store.get(addressOf(request))?.clone(),
    put: async (request: Request, kept: Response) => void store.set(addressOf(request), kept),
    keys: async () => [...store.keys()].map((url) => new Request(url)),
    delete: async (request: Request) => store.delete(addressOf(request)),
  }
}

/** What the worker answers to a page. */
async function asked(path: string, navigates = false): Promise<Response> {
  const request = new Request(`${ORIGIN}${path}`)
  if (navigates) Object.defineProperty(request, 'mode', { value: 'navigate' })
  let given: Promise<Response> | undefined
  const waits: Promise<unknown>[] = []
  listeners.get('fetch')?.({
    request,
    respondWith: (response: Promise<Response>) => (given = response),
    waitUntil: (work: Promise<unknown>) => waits.push(work),
  })
  if (given === undefined) throw new Error('it was left alone')
  const response = await given
  background = Promise.all(waits)
  if (!slow) await background
  return response
}

async function happens(name: string): Promise<void> {
  let work: Promise<unknown> = Promise.resolve()
  listeners.get(name)?.({ waitUntil: (until: Promise<unknown>) => (work = until) })
  await work
}

beforeEach(async () => {
  vi.resetModules()
  listeners = new Map()
  stores = new Map()
  answer = (address) => new Response(`from the server: ${new URL(address).pathname}`)
  vi.stubGlobal('PAGES', { version: 'two', shape: 'b', files: ['/index.html', '/assets/a.js'] })
  vi.stubGlobal('SEEN_AT', 'Vanadin-Seen')
  vi.stubGlobal('CLAIM', 'claim')
  vi.stubGlobal('LATE', 'late:')
  vi.stubGlobal('ASKED_BEFORE', 'Vanadin-Asked-Before')
  told.mockClear()
  vi.stubGlobal('self', {
    location: { origin: ORIGIN },
    addEventListener: (name: string, heard: Listener) => listeners.set(name, heard),
    skipWaiting: async () => undefined,
    clients: { claim, get: async () => ({ postMessage: told }) },
  })
  const RealRequest = globalThis.Request
  vi.stubGlobal(
    'Request',
    class extends RealRequest {
      constructor(address: string | Request, init?: RequestInit) {
        super(typeof address === 'string' && address.startsWith('/') ? `${ORIGIN}${address}` : address, init)
      }
    },
  )
  vi.stubGlobal('fetch', async (request: Request) => answer(request.url))
  vi.stubGlobal('caches', {
    open: async (name: string) => storeOf(name),
    keys: async () => [...stores.keys()],
    delete: async (name: string) => stores.delete(name),
    match: async (request: Request | string, { cacheName }: { cacheName?: string } = {}) => {
      for (const [name, store] of stores) {
        const found =
          cacheName === undefined || cacheName === name ? store.get(addressOf(request)) : undefined
        if (found !== undefined) return found.clone()
      }
      return undefined
    },
  })
  await import('./worker')
  await happens('install')
})

const gone = () => {
  throw new TypeError('not reached')
}

describe('the worker', () => {
  it('takes over a page that asks for it', async () => {
    claim.mockClear()
    let work: Promise<unknown> = Promise.resolve()
    listeners.get('message')?.({ data: 'claim', waitUntil: (until: Promise<unknown>) => (work = until) })
    await work
    listeners.get('message')?.({ data: 'something else', waitUntil: () => undefined })
    expect(claim).toHaveBeenCalledTimes(1)
  })

  it('opens the pages and what was seen last without the server, and says from when it is', async () => {
    expect(await (await asked('/api/rack')).text()).toContain('from the server')
    answer = gone
    expect(await (await asked('/jobs/a/part', true)).text()).toContain('/index.html')
    const rack = await asked('/api/rack')
    expect(await rack.text()).toContain('/api/rack')
    expect(Number(rack.headers.get('Vanadin-Seen'))).toBeGreaterThan(0)
  })

  it('shows nothing that was seen in a shape these pages do not know', async () => {
    await asked('/api/rack')
    vi.stubGlobal('PAGES', { version: 'three', shape: 'c', files: [] })
    answer = gone
    await expect(asked('/api/rack')).rejects.toThrow('not reached')
    vi.stubGlobal('PAGES', { version: 'two', shape: 'b', files: [] })
    // It is let go of, not kept for pages of before.
    await expect(asked('/api/rack')).rejects.toThrow('not reached')
  })

  it('shows what was seen when the server is in trouble', async () => {
    await asked('/api/rack')
    answer = () => new Response('broken', { status: 500 })
    expect(await (await asked('/api/rack')).text()).toContain('from the server')
  })

  it('lets go of everything that was seen once the device is not known any more', async () => {
    await asked('/api/rack')
    expect(stores.has('vanadin-seen')).toBe(true)
    answer = () => new Response('closed', { status: 401 })
    expect((await asked('/api/rack')).status).toBe(401)
    expect(stores.has('vanadin-seen')).toBe(false)
    answer = gone
    await expect(asked('/api/rack')).rejects.toThrow('not reached')
  })

  it('keeps the parts of the build before this one, and none older', async () => {
    stores = new Map([
      ['vanadin-pages-zero', new Map()],
      ['vanadin-pages-one', new Map([[`${ORIGIN}/assets/old.js`, new Response('old part')]])],
      ...stores,
    ])
    await happens('activate')
    expect([...stores.keys()]).toEqual(['vanadin-pages-one', 'vanadin-pages-two'])
    answer = gone
    expect(await (await asked('/assets/old.js')).text()).toBe('old part')
  })

  it('leaves alone what writes and what streams', async () => {
    await expect(asked('/api/jobs/a/stream')).rejects.toThrow('left alone')
    await expect(asked('/api/health')).rejects.toThrow('left alone')
  })

  describe('of a server that is slow', () => {
    beforeEach(() => {
      slow = true
      vi.useFakeTimers()
    })
    afterEach(() => {
      slow = false
      vi.useRealTimers()
    })

    const sent = (path: string) =>
      listeners.get('fetch')?.({ request: new Request(`${ORIGIN}${path}`, { method: 'POST' }) })

    /** The page is shown what was kept, and the answer comes after all. */
    async function late(meanwhile: () => void = () => undefined): Promise<void> {
      await asked('/api/rack')
      await background
      let comes: (answer: Response) => void = () => undefined
      answer = async () => new Promise((done) => (comes = done))
      const shown = asked('/api/rack')
      await vi.advanceTimersByTimeAsync(3_000)
      expect(await (await shown).text()).toContain('from the server')
      expect(told).not.toHaveBeenCalled()
      meanwhile()
      comes(new Response('what it says now'))
      await background
    }

    it('tells the page when the answer came after all, and gives it to the one that asks', async () => {
      await late()
      expect(told).toHaveBeenCalledExactlyOnceWith('late:/api/rack')
      answer = gone
      const again = await asked('/api/rack')
      expect(await again.text()).toBe('what it says now')
      expect(again.headers.get('Vanadin-Seen')).toBeNull()
      // The page may have been told more since: it lays it over nothing that is newer.
      expect(again.headers.get('Vanadin-Asked-Before')).toBe('1')
      answer = () => new Response('as it is')
      expect((await asked('/api/shop')).headers.get('Vanadin-Asked-Before')).toBeNull()
    })

    const isKept = async () => {
      answer = gone
      expect((await asked('/api/rack')).headers.get('Vanadin-Seen')).not.toBeNull()
    }

    it('gives one that came late once', async () => {
      await late()
      await asked('/api/rack')
      await isKept()
    })

    it('gives none that came late long ago', async () => {
      await late()
      await vi.advanceTimersByTimeAsync(5_000)
      await isKept()
    })

    it('gives none of before something was written', async () => {
      await late()
      sent('/api/units')
      await isKept()
    })

    it('gives none that was asked for before something was written, and tells the page all the same', async () => {
      await late(() => sent('/api/units'))
      expect(told).toHaveBeenCalledTimes(1)
      await isKept()
    })

    it('gives it though something was worked out meanwhile', async () => {
      await late(() => sent('/api/reckoner/weigh'))
      sent(`/api/jobs/${'0b6f2f0e-4a53-4be1-9f0c-2f6f3c1f9a10'}/face-heat`)
      answer = gone
      expect(await (await asked('/api/rack')).text()).toBe('what it says now')
    })
  })
})
