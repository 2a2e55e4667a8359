import { openDB, type DBSchema } from 'idb'
import type { JobView, Problem, Schemas } from './client'
import { jobQuery, queryClient } from './queries'

/** A picture that is not on the server's disk yet. It is kept in the browser until it is. */
export interface WaitingPicture {
  id: string
  job: string
  /** The file's own name, to be told by if it is refused. */
  name: string
  file: Blob
  shows: string
  at_client_ms: number
  who: string
}

/** A picture the server would not take. */
export interface RefusedPicture {
  id: string
  job: string
  name: string
  problem: Problem
}

interface PictureBox {
  waiting: readonly WaitingPicture[]
  refused: readonly RefusedPicture[]
}

interface Kept extends DBSchema {
  waiting: { key: string; value: WaitingPicture }
}

const RETRY_MS = 2_000
const kept = openDB<Kept>('vanadin.pictures', 1, {
  upgrade: (database) => void database.createObjectStore('waiting', { keyPath: 'id' }),
})

let state: PictureBox = { waiting: [], refused: [] }
let sending = false
let retry: ReturnType<typeof setTimeout> | undefined
const listeners = new Set<() => void>()

function become(next: Partial<PictureBox>): void {
  state = { ...state, ...next }
  for (const listener of listeners) listener()
}

export const pictureBox = {
  subscribe(listener: () => void): () => void {
    listeners.add(listener)
    return () => listeners.delete(listener)
  },
  now: (): PictureBox => state,

  /** Takes a picture of a job: kept here first, then sent. One over `mostMb` is refused at once. */
  async take(job: string, file: File, shows: string, mostMb: number): Promise<void> {
    const id = crypto.randomUUID()
    if (file.size > mostMb * 1024 * 1024) {
      const problem = {
        field: 'picture',
        message: `more than ${mostMb} MB are too many`,
        would_be_right: 'a smaller one',
      }
      become({ refused: [...state.refused, { id, job, name: file.name, problem }] })
      return
    }
    const who = localStorage.getItem('vanadin.who') ?? 'bench'
    const item = { id, job, name: file.name, file, shows, at_client_ms: Date.now(), who }
    await (await kept).put('waiting', item)
    become({ waiting: [...state.waiting, item] })
    void send()
  },

  /** Forgets a refusal: it was read. */
  dismiss(id: string): void {
    become({ refused: state.refused.filter((item) => item.id !== id) })
  },
}

async function send(): Promise<void> {
  if (sending) return
  sending = true
  clearTimeout(retry)
  while (state.waiting[0] !== undefined) {
    const item = state.waiting[0]
    const outcome = await post(item)
    if (outcome === 'later') {
      retry = setTimeout(() => void send(), RETRY_MS)
      break
    }
    await (await kept).delete('waiting', item.id)
    const waiting = state.waiting.filter((other) => other.id !== item.id)
    if (outcome.kind === 'stored') {
      queryClient.setQueryData(jobQuery(item.job).queryKey, outcome.view)
      void queryClient.invalidateQueries({ queryKey: ['rack'] })
      become({ waiting })
    } else {
      const { id, job, name } = item
      become({ waiting, refused: [...state.refused, { id, job, name, problem: outcome.problem }] })
    }
  }
  sending = false
}

type Outcome = 'later' | { kind: 'stored'; view: JobView } | { kind: 'refused'; problem: Problem }

async function post(item: WaitingPicture): Promise<Outcome> {
  const words = new URLSearchParams({ at_client_ms: String(item.at_client_ms), who: item.who })
  if (item.shows !== '') words.set('shows', item.shows)
  try {
    const answer = await fetch(`/api/jobs/${item.job}/pictures/${item.id}?${words.toString()}`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/octet-stream' },
      body: item.file,
    })
    if (answer.ok) return { kind: 'stored', view: (await answer.json()) as JobView }
    if (answer.status >= 500) return 'later'
    const body = (await answer.json()) as Schemas['ProblemsBody']
    const problem = body.problems[0] ?? { field: 'picture', message: 'It was refused.', would_be_right: '' }
    return { kind: 'refused', problem }
  } catch {
    return 'later'
  }
}

/** Where a picture is, as it is kept or small. */
export const pictureUrl = (job: string, id: string, small: boolean): string =>
  `/api/jobs/${job}/pictures/${id}${small ? '/small' : ''}`

async function start(): Promise<void> {
  become({ waiting: [...(await (await kept).getAll('waiting')), ...state.waiting] })
  await send()
}

window.addEventListener('online', () => void send())
void start()
