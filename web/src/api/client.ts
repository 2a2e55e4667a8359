import createClient from 'openapi-fetch'
import type { components, paths } from './generated/schema'
import { reach } from './reach'

export type Schemas = components['schemas']
export type JobView = Schemas['JobView']
export type Figure = Schemas['Figure']
export type Change = Schemas['Change']
export type Problem = Schemas['FieldProblem']
export type Live = Schemas['Live']
export type Station = Schemas['Station']
export type Iron = Schemas['Iron']
export type Plan = Schemas['Plan']
export type UnitSystem = Schemas['UnitSystem']

/** A server that takes a question and says nothing for so long is not reached. */
const SILENT_MS = 20_000
/** Where a face is worked out as a body: it may wait behind another, on a small machine. */
const WORKED_OUT_MS = 120_000

const WORKED_OUT = /\/(where-to-begin|face-heat|face-logged|face-load|seam-pull)$/

/** In its time, or until nobody waits for it any more. */
function inTime({ url, signal }: Request): RequestInit {
  if (!('timeout' in AbortSignal)) return {}
  const late = AbortSignal.timeout(WORKED_OUT.test(new URL(url).pathname) ? WORKED_OUT_MS : SILENT_MS)
  return { signal: 'any' in AbortSignal ? AbortSignal.any([signal, late]) : late }
}

/** A whole job with its pictures takes as long as it takes. */
const isLong = (request: Request): boolean => new URL(request.url).pathname === '/api/import'

export const api = createClient<paths>({
  baseUrl: '/',
  fetch: (request) => fetch(request, isLong(request) ? {} : inTime(request)),
})

/** Tells when the shop has turned this device out: nothing of it stays here. */
export const turnedOut = new EventTarget()

async function isTurnedOut(answer: Response): Promise<boolean> {
  try {
    const { problems } = (await answer.json()) as Schemas['ProblemsBody']
    return problems.some(({ field }) => field === 'turned_out')
  } catch {
    return false
  }
}

api.use({
  async onResponse({ schemaPath, response }) {
    if (response.status === 401 && (await isTurnedOut(response.clone())))
      turnedOut.dispatchEvent(new Event('out'))
    if (schemaPath === '/api/health') reach.found()
    else reach.answered(response.headers.get(SEEN_AT))
  },
  onError({ error }) {
    if (!(error instanceof DOMException && error.name === 'AbortError')) reach.lost()
  },
})

/** What the server would not do, with its problems. */
export class Refused extends Error {
  constructor(
    readonly status: number,
    readonly problems: Problem[],
  ) {
    super(problems[0]?.message ?? 'The server refused it.')
  }
}

interface Answer {
  data?: unknown
  error?: unknown
  response: Response
}

/** The data of an answer as its schema names it, or [`Refused`]. */
export function dataOf<Name extends keyof Schemas>(_name: Name, answer: Answer): Schemas[Name] {
  if (answer.data !== undefined) return answer.data as Schemas[Name]
  throw new Refused(
    answer.response.status,
    (answer.error as Schemas['ProblemsBody'] | undefined)?.problems ?? [],
  )
}
