import { openDB, type DBSchema } from 'idb'
import { createStore } from 'zustand/vanilla'
import type { JobView, Problem, Schemas } from '../client'
import { device } from './device'
import { laidOver } from '../laid-over'
import { newId } from './new-id'
import { sender } from './outbox'
import { outcomeOf } from './queue'
import { jobQuery, queryClient } from '../queries'

/** A picture that is not on the server's disk yet. It is kept in the browser until it is. */
export interface WaitingPicture {
  id: string
  job: string
  /** The file's own name, to be told by if it is refused. */
  name: string
  file: Blob
  shows: string
  /** What it proves, by its id; nothing where it shows the part. */
  of: string | null
  at_client_ms: number
  who: string
  folder: string | null
}

/** A picture the server would not take. */
export interface RefusedPicture {
  id: string
  job: string
  of: string | null
  name: string
  problem: Problem
}

interface PictureBox {
  waiting: readonly WaitingPicture[]
  refused: readonly RefusedPicture[]
  /** The browser's store takes nothing more. */
  unkept: boolean
}

interface Kept extends DBSchema {
  waiting: { key: string; value: WaitingPicture }
}

const RETRY_MS = 2_000
const kept = openDB<Kept>('vanadin.pictures', 1, {
  upgrade: (database) => void database.createObjectStore('waiting', { keyPath: 'id' }),
})

const box = createStore<PictureBox>(() => ({ waiting: [], refused: [], unkept: false }))
let sending = false
let retry: ReturnType<typeof setTimeout> | undefined

export const pictureBox = {
  subscribe: box.subscribe,
  now: box.getState,

  /** Takes a picture of a job, or of one thing of it: kept here first, then sent. One over `mostMb` is refused at once. */
  async take(
    job: string,
    file: File,
    shows: string,
    mostMb: number,
    of: string | null = null,
  ): Promise<void> {
    const id = newId()
    if (file.size > mostMb * 1024 * 1024) {
      const problem = {
        field: 'picture',
        message: `more than ${mostMb} MB are too many`,
        would_be_right: 'a smaller one',
      }
      box.setState({ refused: [...box.getState().refused, { id, job, of, name: file.name, problem }] })
      return
    }
    const who = device.said()
    const folder = queryClient.getQueryData(jobQuery(job).queryKey)?.folder ?? null
    const item = { id, job, name: file.name, file, shows, of, at_client_ms: Date.now(), who, folder }
    try {
      await (await kept).put('waiting', item)
    } catch {
      // The browser's store takes nothing more: it is sent from here, and lost if this page is closed.
      box.setState({ unkept: true })
    }
    box.setState({ waiting: [...box.getState().waiting, item] })
    void send()
  },

  /** Forgets a refusal: it was read. */
  dismiss(id: string): void {
    box.setState({ refused: box.getState().refused.filter((item) => item.id !== id) })
  },
}

/** Sends what waits, one after another. Whatever goes wrong on the way, it goes on after a while. */
async function send(): Promise<void> {
  if (sending) return
  sending = true
  clearTimeout(retry)
  try {
    await sendAll()
  } catch (error) {
    console.error('Pictures could not be sent now.', error)
    retry = setTimeout(() => void send(), RETRY_MS)
  } finally {
    sending = false
  }
}

async function sendAll(): Promise<void> {
  const held = new Set<string>()
  for (;;) {
    const item = box.getState().waiting.find((waiting) => !held.has(waiting.id))
    if (item === undefined) break
    const outcome = await post(item)
    if (outcome === 'later') {
      retry = setTimeout(() => void send(), RETRY_MS)
      break
    }
    if (outcome === 'waits') {
      held.add(item.id)
      retry = setTimeout(() => void send(), RETRY_MS)
      continue
    }
    try {
      await (await kept).delete('waiting', item.id)
    } catch {
      // It was never kept there.
    }
    const waiting = box.getState().waiting.filter((other) => other.id !== item.id)
    if (outcome.kind === 'stored') {
      const key = jobQuery(item.job).queryKey
      // A picture takes its time: what was said meanwhile and answered first stands.
      const since = queryClient.getQueryData(key)
      queryClient.setQueryData(key, laidOver(outcome.view, { asked: undefined, since }, true))
      void queryClient.invalidateQueries({ queryKey: ['rack'] })
      box.setState({ waiting })
    } else {
      const { id, job, name, of } = item
      box.setState({
        waiting,
        refused: [...box.getState().refused, { id, job, of, name, problem: outcome.problem }],
      })
    }
  }
}

type Outcome = 'later' | 'waits' | { kind: 'stored'; view: JobView } | { kind: 'refused'; problem: Problem }

async function post(item: WaitingPicture): Promise<Outcome> {
  const words = new URLSearchParams({
    at_client_ms: String(item.at_client_ms),
    sent_at_client_ms: String(Date.now()),
    who: item.who,
    sender,
  })
  if (item.folder != null) words.set('folder', item.folder)
  if (item.shows !== '') words.set('shows', item.shows)
  if (item.of !== null) words.set('of', item.of)
  try {
    const answer = await fetch(`/api/jobs/${item.job}/pictures/${item.id}?${words.toString()}`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/octet-stream' },
      body: item.file,
    })
    if (answer.ok) return { kind: 'stored', view: (await answer.json()) as JobView }
    // One that is too large for this server is told at once: it would be for ever.
    const outcome = answer.status === 413 ? null : outcomeOf(answer.status, [])
    if (outcome?.kind === 'later' || outcome?.kind === 'waits') return outcome.kind
    const body = (await answer.json()) as Schemas['ProblemsBody']
    const problem = body.problems[0] ?? { field: 'picture', message: 'It was refused.', would_be_right: '' }
    return { kind: 'refused', problem }
  } catch {
    return 'later'
  }
}

async function start(): Promise<void> {
  try {
    // One that was kept before pictures proved anything shows the part.
    const from = (await (await kept).getAll('waiting')).map((item) => ({ ...item, of: item.of ?? null }))
    box.setState({ waiting: [...from, ...box.getState().waiting] })
  } catch {
    // Without the browser's store there is nothing from before.
  }
  await send()
}

window.addEventListener('online', () => void send())
void start()
