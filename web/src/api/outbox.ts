import { api, type Change, type JobView, type Problem } from './client'
import { queryClient, jobQuery } from './queries'

/** A change that is not on the server's disk yet. It is kept in the browser until it is. */
export interface Waiting {
  job: string
  id: string
  at_client_ms: number
  who: string
  base: number | null
  change: Change
}

/** A change the server would not take: what was typed is kept beside the reason. */
export interface Refusal {
  job: string
  field: string
  typed: string
  problem: Problem
}

interface Outbox {
  waiting: readonly Waiting[]
  refusals: readonly Refusal[]
  reached: boolean
}

const PREFIX = 'vanadin.waiting.'
const RETRY_MS = 1_500

let state: Outbox = { waiting: stored(), refusals: [], reached: true }
let sending = false
let retry: ReturnType<typeof setTimeout> | undefined
const listeners = new Set<() => void>()

function stored(): Waiting[] {
  return Object.keys(localStorage)
    .filter((key) => key.startsWith(PREFIX))
    .sort()
    .flatMap((key) => {
      const text = localStorage.getItem(key)
      return text === null ? [] : [JSON.parse(text) as Waiting]
    })
}

function become(next: Partial<Outbox>): void {
  state = { ...state, ...next }
  for (const listener of listeners) listener()
}

const slot = (item: Waiting): string => `${PREFIX}${item.at_client_ms}.${item.id}`

export const outbox = {
  subscribe(listener: () => void): () => void {
    listeners.add(listener)
    return () => listeners.delete(listener)
  },
  now: (): Outbox => state,

  /** Says a change of a job: kept here first, then sent; in order, each once. */
  say(job: string, change: Change, base: number | null = null): void {
    const item: Waiting = {
      job,
      id: crypto.randomUUID(),
      at_client_ms: Date.now(),
      who: localStorage.getItem('vanadin.who') ?? 'bench',
      base,
      change,
    }
    localStorage.setItem(slot(item), JSON.stringify(item))
    const field = fieldOf(change)
    become({
      waiting: [...state.waiting, item],
      refusals: state.refusals.filter((r) => r.job !== job || r.field !== field),
    })
    void send()
  },

  /** Forgets a refusal: it was read, or typed over. */
  dismiss(refusal: Refusal): void {
    become({ refusals: state.refusals.filter((r) => r !== refusal) })
  },
}

/** The field a change is about; an empty one for what has none. */
function fieldOf(change: Change): string {
  if (change.kind === 'set') return change.key
  return change.kind
}

function typedOf(change: Change): string {
  if (change.kind === 'set') return change.typed
  if (change.kind === 'torch' && change.entry.kind === 'reading') return change.entry.typed
  return ''
}

async function send(): Promise<void> {
  if (sending) return
  sending = true
  clearTimeout(retry)
  while (state.waiting[0] !== undefined) {
    const item = state.waiting[0]
    const outcome = await post(item)
    if (outcome === 'later') {
      become({ reached: false })
      retry = setTimeout(() => void send(), RETRY_MS)
      break
    }
    localStorage.removeItem(slot(item))
    let waiting = state.waiting.filter((other) => other.id !== item.id)
    if (outcome.kind === 'stored') {
      waiting = waiting.map((later) => basedOn(item, outcome.view, later))
      queryClient.setQueryData(jobQuery(item.job).queryKey, outcome.view)
      become({ waiting, reached: true })
      void queryClient.invalidateQueries({ queryKey: ['rack'] })
    } else {
      const typed = typedOf(item.change)
      const refusals = outcome.problems.map((problem) => ({
        job: item.job,
        field: fieldOf(item.change),
        typed,
        problem,
      }))
      become({ waiting, refusals: [...state.refusals, ...refusals], reached: true })
      void queryClient.invalidateQueries({ queryKey: jobQuery(item.job).queryKey })
    }
  }
  sending = false
}

/** What was said here of the same fact while an earlier word waited builds on that word. */
function basedOn(earlier: Waiting, view: JobView, later: Waiting): Waiting {
  const revision = revisionAfter(earlier, view)
  const same = later.job === earlier.job && factOf(later.change) === factOf(earlier.change)
  if (!same || later.base === null || revision === undefined) return later
  const moved = { ...later, base: revision }
  localStorage.setItem(slot(moved), JSON.stringify(moved))
  return moved
}

function factOf(change: Change): string {
  if (change.kind === 'set') return change.key
  return change.kind === 'observe' || change.kind === 'measure' ? `${change.test} ${change.spot}` : ''
}

function revisionAfter({ id, change }: Waiting, view: JobView): number | undefined {
  if (change.kind === 'set') return view.fields[change.key]?.revision
  return view.job.evidence.find((seen) => seen.fact === id)?.revision
}

type Outcome = 'later' | { kind: 'stored'; view: JobView } | { kind: 'refused'; problems: Problem[] }

async function post(item: Waiting): Promise<Outcome> {
  const { job, ...body } = item
  try {
    const { data, error, response } = await api.POST('/api/jobs/{id}/facts', {
      params: { path: { id: job } },
      body,
    })
    if (data !== undefined) return { kind: 'stored', view: data as JobView }
    if (response.status >= 500) return 'later'
    return { kind: 'refused', problems: error?.problems ?? [] }
  } catch {
    // Not reached: it is sent again until it is.
    return 'later'
  }
}

window.addEventListener('online', () => void send())
void send()
