import { createStore } from 'zustand/vanilla'
import { api, type JobView } from '../client'
import { device } from './device'
import { newId } from './new-id'
import { queryClient, jobQuery } from '../queries'
import {
  fieldOf,
  leftAfter,
  nextToSend,
  outcomeOf,
  restored,
  saidOf,
  undoing,
  type Outcome,
  type Refusal,
  type Said,
  type Waiting,
} from './queue'
import { heardTheTime } from './server-clock'
import { store } from './store'

export type { Refusal, Waiting }

interface Outbox {
  waiting: readonly Waiting[]
  /** What was not taken, kept until it is said again or let go. */
  refusals: readonly Refusal[]
  reached: boolean
  /** Why something waits although the server answers; empty for nothing. */
  held: string
  /** Why the server that answers keeps nothing now, in its own words; empty for nothing. */
  trouble: string
  /** The browser's store takes nothing more: what waits is lost when this page is closed. */
  unkept: boolean
  /** What has to be said of the computer's clock; empty for nothing. */
  clockNotice: string
}

const PREFIX = 'vanadin.waiting.'
const NOT_TAKEN = 'vanadin.not-taken'
const SET_ASIDE = 'vanadin.damaged.'
const RETRY_MS = 1_500
const NOT_TAKEN_MOST = 100

/** What this page has said since it was opened: it knows what came of it from the answer. */
const saidHere = new Set<string>()

/** This browser's own name: everybody takes back their own word. */
export const sender: string = (() => {
  const known = store.read('vanadin.sender')
  if (known !== null) return known
  const made = newId()
  store.write('vanadin.sender', made)
  return made
})()

const box = createStore<Outbox>(() => ({
  waiting: [],
  refusals: notTaken(),
  reached: true,
  held: '',
  trouble: '',
  unkept: false,
  clockNotice: '',
}))
/** The data folder of the server that answers; nothing until it has said. */
let folder: string | null = null
let sending: string | null = null
let running = false
let retry: ReturnType<typeof setTimeout> | undefined

/** What waited when the page was closed. What cannot be read is set aside, not lost and not in the way. */
function stored(): Waiting[] {
  const entries = store.entries(PREFIX)
  const { kept, damaged } = restored(entries)
  for (const key of damaged) {
    const text = entries.find(([known]) => known === key)?.[1] ?? ''
    if (store.write(SET_ASIDE + key, text)) store.remove(key)
  }
  return kept
}

function notTaken(): Refusal[] {
  try {
    const list: unknown = JSON.parse(store.read(NOT_TAKEN) ?? '[]')
    return Array.isArray(list) ? (list as Refusal[]).filter((item) => typeof item.id === 'string') : []
  } catch {
    return []
  }
}

function become(next: Partial<Outbox>): void {
  if (next.refusals !== undefined) {
    store.write(NOT_TAKEN, JSON.stringify(next.refusals.slice(-NOT_TAKEN_MOST)))
  }
  // Whoever is reached and answers keeps things again.
  box.setState(next.reached === true ? { trouble: '', ...next } : next)
}

const slot = (item: Waiting): string => `${PREFIX}${item.at_client_ms}.${item.id}`

export const outbox = {
  subscribe: box.subscribe,
  now: box.getState,

  /** Says a change of a job: kept here first, then sent; in order, each once. Gives its id. */
  say(job: string, change: Said, base: number | null = null): string {
    const item: Waiting = {
      job,
      id: newId(),
      at_client_ms: Date.now(),
      who: device.said(),
      base,
      change,
      folder: folder ?? folderOf(job),
    }
    saidHere.add(item.id)
    const kept = store.write(slot(item), JSON.stringify(item))
    const field = fieldOf(change)
    const answered = (r: Refusal) =>
      r.job === job && r.field === field && (change.kind === 'set' || change.kind === 'use')
    become({
      waiting: [...box.getState().waiting, item],
      unkept: box.getState().unkept || !kept,
      refusals: box.getState().refusals.filter((r) => !answered(r)),
    })
    void send()
    return item.id
  },

  /** Begins a job: it is there from here on, on the server as soon as that answers. */
  begin(): string {
    const job = newId()
    outbox.say(job, { kind: 'begin' })
    return job
  },

  /** Takes back the last word from here, whether it was sent or still waits. */
  undo(job: string, last: string | null): void {
    const found = undoing(box.getState().waiting, job, sending, last)
    if (found.kind === 'undo') outbox.say(job, { kind: 'undo', target: found.target })
    if (found.kind === 'drop') {
      const item = box.getState().waiting.find((waiting) => waiting.id === found.id)
      if (item !== undefined) store.remove(slot(item))
      become({ waiting: box.getState().waiting.filter((waiting) => waiting.id !== found.id) })
    }
  },

  /** This page said it itself. */
  saidHere: (fact: string | null | undefined): boolean => fact != null && saidHere.has(fact),

  /** Something can be taken back. */
  canUndo: (job: string, last: string | null): boolean =>
    undoing(box.getState().waiting, job, sending, last).kind !== 'nothing',

  /** Says again what was not taken, as it was. */
  again(refusal: Refusal): void {
    outbox.dismiss(refusal)
    outbox.say(refusal.job, refusal.change)
  },

  /** Forgets a refusal: it was read, or typed over. */
  dismiss(refusal: Refusal): void {
    become({ refusals: box.getState().refusals.filter((r) => r !== refusal) })
  },
}

/** The data folder that a job was seen in last, or that a new one is begun for. */
function folderOf(job: string): string | null {
  const seen = queryClient.getQueryData(jobQuery(job).queryKey)
  const blank = queryClient.getQueriesData<JobView>({ queryKey: ['blank'] }).at(-1)?.[1]
  return (seen ?? blank)?.folder ?? null
}

/** Asks who answers: what waits belongs to one folder. Nothing when nobody does. */
async function whoAnswers(): Promise<string | null> {
  try {
    const { data } = await api.GET('/api/health')
    if (data === undefined) return null
    heardTheTime(data.now_ms)
    if (data.clock_notice !== box.getState().clockNotice) become({ clockNotice: data.clock_notice })
    return data.folder
  } catch {
    return null
  }
}

function again(): void {
  clearTimeout(retry)
  retry = setTimeout(() => void send(), RETRY_MS)
}

/** Sends what waits, one after another. Whatever goes wrong on the way, it goes on after a while. */
async function send(): Promise<void> {
  if (running) return
  running = true
  clearTimeout(retry)
  try {
    await sendAll()
  } catch (error) {
    console.error('What waits could not be sent now.', error)
    folder = null
    again()
  } finally {
    sending = null
    running = false
  }
}

async function sendAll(): Promise<void> {
  adopt(Date.now())
  const held = new Map<string, string>()
  // After a failure another server may stand at this address.
  folder ??= await whoAnswers()
  const wanted = box.getState().waiting.length > 0 || !box.getState().reached
  if (folder === null && wanted) {
    become({ reached: false })
    again()
  }
  // What waited was taken back meanwhile: there is nothing left that would tell.
  if (folder !== null && !box.getState().reached && box.getState().waiting.length === 0)
    become({ reached: true })
  for (;;) {
    const item =
      folder === null ? undefined : nextToSend(box.getState().waiting, folder, new Set(held.keys()))
    if (item === undefined) break
    sending = item.id
    const outcome = await post(item)
    sending = null
    if (outcome.kind === 'later') {
      folder = null
      become({ reached: false, trouble: outcome.why })
      again()
      return
    }
    if (outcome.kind === 'waits') {
      held.set(item.job, outcome.why)
      continue
    }
    store.remove(slot(item))
    try {
      settle(item, outcome)
    } catch (error) {
      // It was answered, in words that this version of the pages does not know: the job is looked at anew.
      console.error('An answer could not be read.', error)
      become({ waiting: box.getState().waiting.filter((other) => other.id !== item.id), reached: true })
      void queryClient.invalidateQueries({ queryKey: jobQuery(item.job).queryKey })
    }
  }
  const left = box.getState().waiting.length > 0 && folder !== null
  const elsewhere = box.getState().waiting.some((item) => item.folder !== null && item.folder !== folder)
  const why = [...held.values()][0] ?? (elsewhere ? 'it was said to another shop' : '')
  if ((left ? why : '') !== box.getState().held) become({ held: left ? why : '' })
  if (left && why !== '') {
    folder = null
    again()
  }
  if (box.getState().unkept && box.getState().waiting.length === 0) become({ unkept: false })
}

function settle(item: Waiting, outcome: Extract<Outcome, { kind: 'stored' | 'refused' }>): void {
  const before = box.getState().waiting
  const waiting = leftAfter(before, item, outcome)
  if (outcome.kind === 'stored') {
    const { view } = outcome
    heardTheTime(view.now_ms)
    for (const later of waiting) {
      if (!before.includes(later)) store.write(slot(later), JSON.stringify(later))
    }
    // Somebody else's later word may have been told meanwhile.
    queryClient.setQueryData(jobQuery(item.job).queryKey, (seen) =>
      seen !== undefined && seen.revision > view.revision ? seen : view,
    )
    become({ waiting, reached: true })
    void queryClient.invalidateQueries({ queryKey: ['rack'] })
    return
  }
  const { id, job, change, at_client_ms } = item
  const unsaid = { field: '', message: 'The server would not take it.', would_be_right: '' }
  const problems = outcome.problems.length > 0 ? outcome.problems : [unsaid]
  const refusals = problems.map((problem, at) => ({
    id: `${id}.${at}`,
    job,
    field: fieldOf(change),
    typed: saidOf(change),
    problem,
    change,
    at_client_ms,
  }))
  become({ waiting, refusals: [...box.getState().refusals, ...refusals], reached: true })
  void queryClient.invalidateQueries({ queryKey: jobQuery(job).queryKey })
}

async function post(item: Waiting): Promise<Outcome> {
  const { job, change, ...words } = item
  try {
    const { data, error, response } =
      change.kind === 'begin'
        ? await api.POST('/api/jobs', { body: { id: job } })
        : await api.POST('/api/jobs/{id}/facts', {
            params: { path: { id: job } },
            body: { ...words, change, sender, sent_at_client_ms: Date.now() },
          })
    if (data !== undefined) return { kind: 'stored', view: data as JobView }
    return outcomeOf(response.status, error?.problems ?? [])
  } catch {
    // Not reached: it is sent again until it is.
    return { kind: 'later', why: '' }
  }
}

/** What another page kept and has not sent for so long is taken over: that page was closed. */
const TAKEN_OVER_MS = 15_000

function adopt(now: number): void {
  const known = new Set(box.getState().waiting.map((item) => item.id))
  const left = stored().filter((item) => !known.has(item.id) && now - item.at_client_ms >= TAKEN_OVER_MS)
  if (left.length === 0) return
  const waiting = [...box.getState().waiting, ...left].sort((a, b) => a.at_client_ms - b.at_client_ms)
  become({ waiting })
}

become({ waiting: stored() })
window.addEventListener('online', () => void send())
// Another page sent it, or took it back: it waits here no longer.
window.addEventListener('storage', ({ key, newValue }) => {
  if (key === null || newValue !== null || !key.startsWith(PREFIX)) return
  become({ waiting: box.getState().waiting.filter((item) => slot(item) !== key || item.id === sending) })
})
// Nobody asks the server for it: only where something is left behind it is sent.
setInterval(() => {
  const known = new Set(box.getState().waiting.map(slot))
  if (store.entries(PREFIX).some(([key]) => !known.has(key))) void send()
}, TAKEN_OVER_MS)
void send()
