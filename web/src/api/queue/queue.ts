import type { Change, JobView, Problem } from '../client'
import { torchSaid } from './torch-said'

/** What is said: a change of a job, or that there is one at all. */
export type Said = Change | { kind: 'begin' }

/** A change that is not on the server's disk yet. It is kept in the browser until it is. */
export interface Waiting {
  job: string
  id: string
  at_client_ms: number
  who: string
  base: number | null
  change: Said
  /** The data folder it was said to; nothing where that was not known yet. */
  folder: string | null
}

/** A change the server would not take: what was said is kept beside the reason, until it is said again or let go. */
export interface Refusal {
  id: string
  job: string
  /** The field it is about; an empty one for what has none. */
  field: string
  typed: string
  problem: Problem
  change: Said
  at_client_ms: number
}

/** What came of sending one. */
export type Outcome =
  | { kind: 'stored'; view: JobView }
  /** Not reached, or the server is in trouble: everything is sent again. */
  | { kind: 'later'; why: string }
  /** Not here: another folder answers, or the job is not in it. It waits, others go on. */
  | { kind: 'waits'; why: string }
  | { kind: 'refused'; problems: readonly Problem[] }

/** Answers that say nothing of what was said: it goes on waiting. */
const NOT_A_WORD: Record<number, string> = {
  401: 'this device is not known to the shop any more',
  403: 'this address may not write',
  404: 'this job is not in the shop that answers',
  413: 'it is too large for the server that answers',
  421: 'another shop answers at this address',
}

/** What an answer means for what was sent. */
export function outcomeOf(status: number, problems: readonly Problem[]): Outcome {
  if (status >= 500) return { kind: 'later', why: problems[0]?.message ?? '' }
  const why = NOT_A_WORD[status]
  return why === undefined ? { kind: 'refused', problems } : { kind: 'waits', why }
}

/** The next one to be sent: in order, but for jobs that wait, and never to another folder. */
export function nextToSend(
  waiting: readonly Waiting[],
  folder: string | null,
  held: ReadonlySet<string>,
): Waiting | undefined {
  return waiting.find((item) => !held.has(item.job) && (item.folder === null || item.folder === folder))
}

/** What still waits once one was sent and something came of it: the others in their order. */
export function leftAfter(waiting: readonly Waiting[], sent: Waiting, outcome: Outcome): readonly Waiting[] {
  if (outcome.kind === 'later' || outcome.kind === 'waits') return waiting
  const left = waiting.filter((other) => other.id !== sent.id)
  return outcome.kind === 'stored' ? left.map((later) => basedOn(sent, outcome.view, later)) : left
}

/** Entries kept in the browser, and the keys of those that cannot be read. */
export function restored(entries: readonly (readonly [key: string, text: string])[]): {
  kept: Waiting[]
  damaged: string[]
} {
  const kept: Waiting[] = []
  const damaged: string[] = []
  for (const [key, text] of entries) {
    const item = readWaiting(text)
    if (item === null) damaged.push(key)
    else kept.push(item)
  }
  return { kept, damaged }
}

/** What an entry of an earlier version does not say. */
const UNSAID = { who: 'bench', base: null, folder: null }

function readWaiting(text: string): Waiting | null {
  try {
    const item: unknown = JSON.parse(text)
    if (typeof item !== 'object' || item === null) return null
    const { job, id, at_client_ms, change } = item as Partial<Waiting>
    const whole =
      typeof job === 'string' &&
      typeof id === 'string' &&
      typeof at_client_ms === 'number' &&
      typeof change === 'object' &&
      change !== null &&
      typeof change.kind === 'string'
    return whole ? { ...UNSAID, ...(item as Omit<Waiting, keyof typeof UNSAID>) } : null
  } catch {
    return null
  }
}

/** What taking back means while something waits: the last word from here, sent or not. */
export type Undoing = { kind: 'drop'; id: string } | { kind: 'undo'; target: string } | { kind: 'nothing' }

const TAKEN_BACK: ReadonlySet<Said['kind']> = new Set([
  'set',
  'observe',
  'measure',
  'add_hard_spot',
  'add_neighbour',
  'add_picture',
  'add_crack',
  'add_face',
  'add_mark',
  'straighten',
  'draw',
  'set_point',
  'put_flame',
  'measure_seam',
  'look',
  'use',
  'follow_up',
  'tick',
  'finish_step',
  'estimate',
  'time',
  'strike',
])

export function undoing(
  waiting: readonly Waiting[],
  job: string,
  sending: string | null,
  stored: string | null,
): Undoing {
  const undone = new Set(waiting.flatMap((i) => (i.change.kind === 'undo' ? [i.change.target] : [])))
  const last = waiting.findLast(
    (item) => item.job === job && TAKEN_BACK.has(item.change.kind) && !undone.has(item.id),
  )
  if (last !== undefined) {
    // What is on its way may be stored already: it is taken back after it.
    return last.id === sending ? { kind: 'undo', target: last.id } : { kind: 'drop', id: last.id }
  }
  return stored === null || undone.has(stored) ? { kind: 'nothing' } : { kind: 'undo', target: stored }
}

/** Jobs that were begun here and are not on the server yet, by id. */
export const begun = (waiting: readonly Waiting[]): string[] =>
  waiting.flatMap((item) => (item.change.kind === 'begin' ? [item.job] : []))

/** What was typed last into a field and waits; nothing where nothing does. */
export function typedAndWaiting(waiting: readonly Waiting[], job: string, key: string): string | undefined {
  const is = (item: Waiting) => item.job === job && item.change.kind === 'set' && item.change.key === key
  const last = waiting.findLast(is)?.change
  return last?.kind === 'set' ? last.typed : undefined
}

/** The field a change is about; an empty one for what has none. */
export function fieldOf(change: Said): string {
  if (change.kind === 'use') return usedField(change)
  return change.kind === 'set' ? change.key : change.kind
}

/** Where it is told what was wrong with how much of a thing was used. */
export const usedField = ({ what, size_mm }: { what: string; size_mm?: number | null }): string =>
  `use.${what}.${size_mm ?? ''}`

/** What was typed or said, as a person would say it again. */
export function saidOf(change: Said): string {
  switch (change.kind) {
    case 'set':
    case 'use':
      return change.typed
    case 'observe':
      return `${change.test}: ${change.outcome.replaceAll('_', ' ')}`
    case 'measure':
      return `${change.test}: ${Object.values(change.typed).join(', ')}`
    case 'add_hard_spot':
      return `hard spot at ${change.spot}`
    case 'add_neighbour':
      return 'something must stay cool'
    case 'add_picture':
      return 'a picture'
    case 'add_crack':
      return 'another crack'
    case 'add_face':
      return 'a face of the part'
    case 'add_mark':
      return change.what.replaceAll('_', ' ')
    case 'straighten':
      return `a picture laid on the map, ${Object.values(change.typed).join(' by ')}`
    case 'draw':
      return 'what was drawn on the map'
    case 'put_flame':
      return change.flame == null ? 'where the flame begins is open' : 'where the flame begins'
    case 'set_point':
    case 'measure_seam':
      return Object.values(change.typed).join(', ')
    case 'look':
      return `looked at: ${change.found.replaceAll('_', ' ')}`
    case 'follow_up':
      return `how it holds: ${change.became}`
    case 'tick':
      return `${change.step.what.replaceAll('_', ' ')}: ${change.done ? 'done' : 'not done'}`
    case 'finish_step':
      return `${change.step.what.replaceAll('_', ' ')}: ${change.taken ? 'to be done' : 'left out'}`
    case 'time':
      return `${change.step.replaceAll('_', ' ')}: timed ${change.running ? 'from' : 'to'} here`
    case 'estimate':
      return `an estimate, until ${change.until}`
    case 'strike':
      return `cross it out: ${change.reason}`
    case 'undo':
      return 'take it back'
    case 'redo':
      return 'put it back'
    case 'light':
      return 'light up'
    case 'put_out':
      return 'put it out'
    case 'cancel_light':
      return 'cancel the lighting'
    case 'practise':
      return `practice: ${change.of.title}`
    case 'pass':
      return `${change.minutes} min go by`
    case 'end_practice':
      return 'see what became of it'
    case 'torch':
      return torchSaid(change.entry)
    case 'new_round':
      return `new round: ${change.reason}`
    case 'put_away':
      return 'put away'
    case 'bring_back':
      return 'bring back'
    case 'unreadable':
      return change.text
    case 'begin':
      return 'a new job'
  }
}

/** What was said here of the same fact while an earlier word waited builds on that word. */
export function basedOn(earlier: Waiting, view: JobView, later: Waiting): Waiting {
  const revision = revisionAfter(earlier, view)
  const same = later.job === earlier.job && factOf(later.change) === factOf(earlier.change)
  return !same || later.base === null || revision === undefined ? later : { ...later, base: revision }
}

function factOf(change: Said): string {
  if (change.kind === 'set') return change.key
  // On the map each page builds on what it saw of the whole.
  if (isDrawn(change)) return 'the map'
  return change.kind === 'observe' || change.kind === 'measure' ? `${change.test} ${change.spot}` : ''
}

const isDrawn = ({ kind }: Said): boolean => kind === 'draw' || kind === 'set_point' || kind === 'straighten'

function revisionAfter({ id, change }: Waiting, view: JobView): number | undefined {
  if (change.kind === 'set') return view.fields[change.key]?.revision
  if (isDrawn(change)) return view.revision
  return view.job.evidence.find((seen) => seen.fact === id)?.revision
}
