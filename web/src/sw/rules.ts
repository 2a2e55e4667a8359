/** What is done with a request while the pages are kept in this browser. */
export type Way =
  /** The page itself: from the server, or as it was kept. */
  | 'page'
  /** A script, style, font or picture of the program: its name says what is in it. */
  | 'asset'
  /** What was seen of the jobs: from the server, or as it was seen last, which the page then says. */
  | 'seen'
  /** Not touched: what writes, what streams, what says whether the server is there. */
  | 'leave'

/** What is kept as it was seen last, by path. Answers that hang on many words are asked for anew. */
const SEEN: readonly RegExp[] = [
  /^\/api\/rack$/,
  /^\/api\/shop$/,
  /^\/api\/blank$/,
  /^\/api\/ledger$/,
  /^\/api\/tables\/[a-z]+$/,
  /^\/api\/reckoner\/[a-z]+$/,
  /^\/api\/jobs\/[0-9a-f-]{36}$/,
  // Laid another way it has another revision: what is kept is what was seen.
  /^\/api\/jobs\/[0-9a-f-]{36}\/map\/[0-9a-f-]{36}\/picture\/\d+$/,
  /^\/api\/jobs\/[0-9a-f-]{36}\/pictures\/[0-9a-f-]{36}(\/small)?$/,
]

export function wayOf(method: string, navigates: boolean, path: string): Way {
  if (method !== 'GET') return 'leave'
  if (path.startsWith('/api/')) return !navigates && SEEN.some((known) => known.test(path)) ? 'seen' : 'leave'
  if (navigates) return 'page'
  return path.startsWith('/assets/') || path === '/crystal.svg' ? 'asset' : 'leave'
}

/** What is only worked out, though it is asked in a body: nothing is written by it. */
const ASKS: readonly RegExp[] = [/^\/api\/reckoner\/[^/]+$/, /^\/api\/jobs\/[0-9a-f-]{36}\/face-heat$/]

/** Whether it may change what the server answers from then on. */
export const writes = (method: string, path: string): boolean =>
  method !== 'GET' && method !== 'HEAD' && !ASKS.some((known) => known.test(path))

/** What an answer of the server means for what was kept of the same address. */
export function keeping(status: number): 'keep' | 'forget all' | 'leave' {
  if (status === 200) return 'keep'
  // Not known here any more: nothing of the shop stays in this browser.
  return status === 401 ? 'forget all' : 'leave'
}

/** An answer of a server in trouble is no answer: what was seen last says more. */
export const isAnAnswer = (status: number): boolean => status < 500

export const PAGES_PREFIX = 'vanadin-pages-'

/**
 * Pages of earlier builds that nobody needs: of all but the one before this one. A page that was open when this build
 * came still asks for parts of its own.
 */
export function noLongerNeeded(kept: readonly string[], current: string): string[] {
  const earlier = kept.filter((name) => name.startsWith(PAGES_PREFIX) && name !== current)
  return earlier.slice(0, -1)
}

/** So long a device is known: what it saw before that it shows no longer. */
const SHOWN_MS = 90 * 86_400_000

/** Whether what was seen then is let go of; what does not say when it was seen is. */
export const isTooOld = (seenAt: string | null, now: number): boolean =>
  seenAt === null || !(now - Number(seenAt) < SHOWN_MS)
