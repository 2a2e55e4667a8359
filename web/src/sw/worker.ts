/// <reference lib="webworker" />
import { isAnAnswer, isTooOld, keeping, noLongerNeeded, PAGES_PREFIX, wayOf, writes } from './rules'

declare const self: ServiceWorkerGlobalScope

/** Every file of this build, and which shape of the server's answers it knows; put in when it is built. */
declare const PAGES: { version: string; shape: string; files: readonly string[] }

const PAGES_KEPT = `${PAGES_PREFIX}${PAGES.version}`
const SEEN = 'vanadin-seen'
/** The shape an answer had that is kept: what a page of before was shown is not drawn by one that knows another. */
const SHAPE = 'Vanadin-Shape'
/** So long the server is waited for before what was kept is shown. */
const PATIENCE_MS = 3_000
/** So long, while it has not answered the last time. */
const LITTLE_PATIENCE_MS = 250
/** After so long a request is given up: a server that takes connections and says nothing holds none of them. */
const GIVEN_UP_MS = 30_000
/** So many answers are kept; the oldest go first. */
const SEEN_MOST = 400

/** The server let a request wait, and has answered none since. */
let silent = false

/** Answers that came after what was kept was shown, by address: the page that asks again at once is given them. */
const cameLate = new Map<string, { came: Response; atMs: number }>()
/** How often something was written: what was asked before says nothing of what is since. */
let written = 0
/** So long one that came late is held for the page that was told of it. */
const HELD_MS = 5_000

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
      for (const name of noLongerNeeded(await caches.keys(), PAGES_KEPT)) await caches.delete(name)
      await self.clients.claim()
    })(),
  )
})

// A page that was on its way while the worker began is not among those it took over: it asks.
self.addEventListener('message', (event) => {
  if (event.data === CLAIM) event.waitUntil(self.clients.claim())
})

self.addEventListener('fetch', (event) => {
  const { request } = event
  const url = new URL(request.url)
  if (url.origin !== self.location.origin) return
  if (writes(request.method, url.pathname)) {
    // What is written may change every answer.
    written += 1
    cameLate.clear()
  }
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
  const answer = await inTime(fetch(request, { signal: AbortSignal.timeout(GIVEN_UP_MS) }))
  if (answer !== undefined && isAnAnswer(answer.status)) return answer
  const kept = await caches.match('/index.html', { cacheName: PAGES_KEPT })
  return kept ?? Response.error()
}

async function asset(request: Request): Promise<Response> {
  return (await caches.match(request)) ?? fetch(request)
}

/** The answer if it comes in time; what comes too late is still heard, and kept. */
async function inTime(asked: Promise<Response>): Promise<Response | undefined> {
  let waited: ReturnType<typeof setTimeout> | undefined
  const late = new Promise<undefined>((done) => {
    waited = setTimeout(
      () => {
        silent = true
        done(undefined)
      },
      silent ? LITTLE_PATIENCE_MS : PATIENCE_MS,
    )
  })
  const heard = asked.then(
    (answer) => {
      silent = false
      return answer
    },
    // Not reached: what was kept stands in for it.
    () => undefined,
  )
  const first = await Promise.race([heard, late])
  clearTimeout(waited)
  return first
}

async function seen(request: Request, event: FetchEvent): Promise<Response> {
  const late = cameLate.get(request.url)
  cameLate.delete(request.url)
  if (late !== undefined && Date.now() - late.atMs < HELD_MS) return late.came
  const before = written
  const asked = ask(request, event)
  const answer = await inTime(asked)
  if (answer !== undefined && isAnAnswer(answer.status)) return answer
  const kept = await lastSeen(request)
  if (kept === undefined) return asked
  event.waitUntil(
    asked.then(
      async (came) => hold(request, came, { clientId: event.clientId, stands: before === written }),
      // Not reached: what was kept stays shown, and the page asks whether the server is back.
      () => undefined,
    ),
  )
  return kept
}

/** An answer that came after all: the page that was shown what was kept is told to ask for it. */
async function hold(
  request: Request,
  came: Response,
  { clientId, stands }: { clientId: string; stands: boolean },
): Promise<void> {
  if (!isAnAnswer(came.status)) return
  const page = await self.clients.get(clientId)
  if (page === undefined) return
  if (stands) cameLate.set(request.url, { came: marked(came), atMs: Date.now() })
  page.postMessage(`${LATE}${new URL(request.url).pathname}`)
}

/** What was asked for before the page asks again: it says so, since the page may know more by then. */
function marked(came: Response): Response {
  const headers = new Headers(came.headers)
  // It is unpacked.
  headers.delete('Content-Encoding')
  headers.set(ASKED_BEFORE, '1')
  return new Response(came.body, { status: came.status, headers })
}

async function ask(request: Request, event: FetchEvent): Promise<Response> {
  const giveUp = new AbortController()
  const waited = setTimeout(() => giveUp.abort(), GIVEN_UP_MS)
  const asked = fetch(request, { signal: giveUp.signal }).finally(() => clearTimeout(waited))
  // The worker lives until it is heard, and what comes late is kept too.
  event.waitUntil(
    asked.then(
      (answer) => heard(request, answer.clone()),
      () => undefined,
    ),
  )
  return asked
}

async function heard(request: Request, answer: Response): Promise<void> {
  const way = isAnAnswer(answer.status) ? keeping(answer.status) : 'leave'
  if (way === 'keep') await keep(request, answer)
  if (way === 'forget all') await caches.delete(SEEN)
}

async function lastSeen(request: Request): Promise<Response | undefined> {
  const store = await caches.open(SEEN)
  const kept = await store.match(request)
  if (kept === undefined) return undefined
  // A device that never comes back shows nothing for ever.
  const fresh = !isTooOld(kept.headers.get(SEEN_AT), Date.now())
  if (fresh && kept.headers.get(SHAPE) === PAGES.shape) return kept
  await store.delete(request)
  return undefined
}

async function keep(request: Request, answer: Response): Promise<void> {
  const headers = new Headers(answer.headers)
  // It is kept unpacked.
  headers.delete('Content-Encoding')
  headers.set(SEEN_AT, String(Date.now()))
  headers.set(SHAPE, PAGES.shape)
  const kept = await caches.open(SEEN)
  try {
    await kept.put(request, new Response(await answer.blob(), { status: 200, headers }))
    const all = await kept.keys()
    for (const old of all.slice(0, Math.max(0, all.length - SEEN_MOST))) await kept.delete(old)
  } catch {
    // The browser's store is full: what was seen before stays.
  }
}
