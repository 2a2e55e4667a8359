/// <reference lib="webworker" />
import { isAnAnswer, keeping, wayOf } from './rules'

declare const self: ServiceWorkerGlobalScope

/** Every file of this build; put in when it is built. */
declare const PAGES: { version: string; files: readonly string[] }

const PAGES_KEPT = `vanadin-pages-${PAGES.version}`
const SEEN = 'vanadin-seen'
/** So long the server is waited for before a page is opened as it was kept. */
const PATIENCE_MS = 3_000
/** So many answers are kept; the oldest go first. */
const SEEN_MOST = 400

self.addEventListener('install', (event) => {
  event.waitUntil(
    (async () => {
      const kept = await caches.open(PAGES_KEPT)
      await kept.addAll(PAGES.files.map((file) => new Request(file, { cache: 'no-cache' })))
      await self.skipWaiting()
    })(),
  )
})

self.addEventListener('activate', (event) => {
  event.waitUntil(
    (async () => {
      for (const name of await caches.keys()) {
        if (name.startsWith('vanadin-pages-') && name !== PAGES_KEPT) await caches.delete(name)
      }
      await self.clients.claim()
    })(),
  )
})

self.addEventListener('fetch', (event) => {
  const { request } = event
  const url = new URL(request.url)
  if (url.origin !== self.location.origin) return
  switch (wayOf(request.method, request.mode === 'navigate', url.pathname)) {
    case 'leave':
      return
    case 'page':
      return event.respondWith(page(request))
    case 'asset':
      return event.respondWith(asset(request))
    case 'seen':
      return event.respondWith(seen(request, event))
  }
})

async function page(request: Request): Promise<Response> {
  try {
    const answer = await fetch(request, { signal: AbortSignal.timeout(PATIENCE_MS) })
    if (isAnAnswer(answer.status)) return answer
  } catch {
    // Not reached: the page as it was kept.
  }
  const kept = await caches.match('/index.html', { cacheName: PAGES_KEPT })
  return kept ?? Response.error()
}

async function asset(request: Request): Promise<Response> {
  return (await caches.match(request)) ?? fetch(request)
}

async function seen(request: Request, event: FetchEvent): Promise<Response> {
  try {
    const answer = await fetch(request)
    const { status } = answer
    if (isAnAnswer(status)) {
      const way = keeping(status)
      if (way === 'keep') event.waitUntil(keep(request, answer.clone()))
      if (way === 'forget all') event.waitUntil(caches.delete(SEEN))
      return answer
    }
    return (await lastSeen(request)) ?? answer
  } catch (error) {
    const last = await lastSeen(request)
    if (last === undefined) throw error
    return last
  }
}

async function lastSeen(request: Request): Promise<Response | undefined> {
  const kept = await caches.open(SEEN)
  return kept.match(request)
}

async function keep(request: Request, answer: Response): Promise<void> {
  const headers = new Headers(answer.headers)
  // It is kept unpacked.
  headers.delete('Content-Encoding')
  headers.set(SEEN_AT, String(Date.now()))
  const kept = await caches.open(SEEN)
  try {
    await kept.put(request, new Response(await answer.blob(), { status: 200, headers }))
    const all = await kept.keys()
    for (const old of all.slice(0, Math.max(0, all.length - SEEN_MOST))) await kept.delete(old)
  } catch {
    // The browser's store is full: what was seen before stays.
  }
}
