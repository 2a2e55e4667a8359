import { describe, expect, it } from 'vitest'
import type { Change } from '../client'
import {
  basedOn,
  begun,
  fieldOf,
  leftAfter,
  nextToSend,
  outcomeOf,
  restored,
  saidOf,
  typedAndWaiting,
  undoing,
  type Outcome,
  type Said,
  type Waiting,
} from './queue'

const set = (key: string, typed: string): Change => ({ kind: 'set', key, typed, shown_in: 'metric' })

function item(id: string, job: string, change: Said, folder: string | null = 'here'): Waiting {
  return { id, job, at_client_ms: 1, who: 'bench', base: null, change, folder }
}

describe('the queue', () => {
  const first = item('1', 'a', set('part.wall', '14'))
  const second = item('2', 'b', set('part.wall', '9'))

  it('sends in order', () => {
    expect(nextToSend([first, second], 'here', new Set())).toBe(first)
  })

  it('a job that waits holds up no other', () => {
    expect(nextToSend([first, second], 'here', new Set(['a']))).toBe(second)
    expect(nextToSend([first], 'here', new Set(['a']))).toBeUndefined()
  })

  it('sends nothing to another folder than the one it was said to', () => {
    expect(nextToSend([first, second], 'elsewhere', new Set())).toBeUndefined()
    const any = item('3', 'a', set('part.wall', '1'), null)
    expect(nextToSend([first, any], 'elsewhere', new Set())).toBe(any)
  })

  it('goes on waiting where the answer says nothing of what was said', () => {
    for (const status of [401, 403, 404, 413, 421]) expect(outcomeOf(status, []).kind).toBe('waits')
    for (const status of [500, 503]) expect(outcomeOf(status, []).kind).toBe('later')
    for (const status of [400, 409, 422]) expect(outcomeOf(status, []).kind).toBe('refused')
  })

  it('takes what the browser kept and sets aside what cannot be read', () => {
    const { kept, damaged } = restored([
      ['k1', JSON.stringify(first)],
      ['k2', '{"job": "a", "id"'],
      ['k3', 'null'],
      ['k4', '{"job":"a","id":"x","at_client_ms":5}'],
    ])
    expect(kept).toEqual([first])
    expect(damaged).toEqual(['k2', 'k3', 'k4'])
  })

  it('an entry of an earlier version is of no folder', () => {
    const old: Partial<Waiting> = { ...first }
    delete old.folder
    expect(restored([['k', JSON.stringify(old)]]).kept[0]?.folder).toBeNull()
  })
})

describe('taking back', () => {
  const waits = item('w', 'a', set('part.wall', '14'))

  it('drops the last word while it waits', () => {
    expect(undoing([waits], 'a', null, 'stored')).toEqual({ kind: 'drop', id: 'w' })
  })

  it('takes back after it what is on its way', () => {
    expect(undoing([waits], 'a', 'w', 'stored')).toEqual({ kind: 'undo', target: 'w' })
  })

  it('takes back what is stored when nothing of this job waits', () => {
    expect(undoing([waits], 'b', null, 'stored')).toEqual({ kind: 'undo', target: 'stored' })
    expect(undoing([], 'a', null, null)).toEqual({ kind: 'nothing' })
  })

  it('does not take the same word back twice', () => {
    const undo = item('u', 'a', { kind: 'undo', target: 'stored' })
    expect(undoing([undo], 'a', null, 'stored')).toEqual({ kind: 'nothing' })
  })

  it('leaves what happened at the torch', () => {
    const bead = item('b', 'a', { kind: 'torch', entry: { kind: 'bead' } })
    expect(undoing([bead], 'a', null, null)).toEqual({ kind: 'nothing' })
  })
})

describe('what was said', () => {
  it('names its field and its words', () => {
    expect(fieldOf(set('part.wall', '14'))).toBe('part.wall')
    expect(fieldOf({ kind: 'add_crack' })).toBe('add_crack')
    const reading = { kind: 'reading', typed: '312 C', shown_in: 'metric' } as const
    expect(saidOf({ kind: 'torch', entry: reading })).toBe('reading 312 C')
    expect(saidOf({ kind: 'strike', target: 'x', reason: 'misread' })).toContain('misread')
  })

  it('a second word on the same field builds on the first', () => {
    const view = { fields: { 'part.wall': { revision: 7 } }, job: { evidence: [] } } as never
    const earlier = item('1', 'a', set('part.wall', '14'))
    const later = { ...item('2', 'a', set('part.wall', '15')), base: 3 }
    expect(basedOn(earlier, view, later).base).toBe(7)
    const other = { ...item('3', 'a', set('part.mass', '2')), base: 3 }
    expect(basedOn(earlier, view, other).base).toBe(3)
    expect(basedOn(earlier, view, { ...later, base: null }).base).toBeNull()
  })
})

const VIEW = { fields: {}, job: { evidence: [] } } as never

const OUTCOMES: readonly Outcome[] = [
  { kind: 'stored', view: VIEW },
  { kind: 'later', why: '' },
  { kind: 'waits', why: 'elsewhere' },
  { kind: 'refused', problems: [] },
]

describe('what waits, whatever comes of sending it', () => {
  const all = [
    item('1', 'a', { kind: 'begin' }),
    item('2', 'a', set('part.wall', '14')),
    item('3', 'b', set('part.wall', '9')),
    item('4', 'b', set('part.wall', '10')),
  ]
  /** Sends as the outbox does, with these outcomes one after the other; the last one stays. */
  const run = (outcomes: readonly Outcome[]) => {
    let waiting: readonly Waiting[] = all
    let held = new Set<string>()
    const sent: { id: string; kind: Outcome['kind'] }[] = []
    for (let at = 0; at < 12; at += 1) {
      const next = nextToSend(waiting, 'here', held)
      if (next === undefined) {
        if (waiting.length === 0) break
        // A new round: what was held is tried again.
        held = new Set()
        continue
      }
      const outcome = outcomes[Math.min(at, outcomes.length - 1)]
      if (outcome === undefined) break
      sent.push({ id: next.id, kind: outcome.kind })
      if (outcome.kind === 'waits') held.add(next.job)
      waiting = leftAfter(waiting, next, outcome)
    }
    return { waiting, sent }
  }
  const indices = [0, 1, 2, 3]
  const sequences = indices.flatMap((a) =>
    indices.flatMap((b) =>
      indices.flatMap((c) => indices.flatMap((d) => indices.map((e) => [a, b, c, d, e]))),
    ),
  )

  it.each(['stored', 'refused'] as const)('one that is %s is sent no more', (kind) => {
    for (const sequence of sequences) {
      const { sent } = run(sequence.flatMap((at) => OUTCOMES[at] ?? []))
      for (const { id } of sent.filter((one) => one.kind === kind)) {
        const after = sent.slice(sent.findIndex((one) => one.id === id && one.kind === kind) + 1)
        expect(after.map((one) => one.id)).not.toContain(id)
      }
    }
  })

  it('nothing is lost, and each job keeps its order', () => {
    for (const sequence of sequences) {
      const { waiting, sent } = run(sequence.flatMap((at) => OUTCOMES[at] ?? []))
      const settled = sent.filter((one) => one.kind === 'stored' || one.kind === 'refused')
      expect([...settled.map((one) => one.id), ...waiting.map((one) => one.id)].sort()).toEqual([
        '1',
        '2',
        '3',
        '4',
      ])
      for (const [first, second] of [
        ['1', '2'],
        ['3', '4'],
      ]) {
        const at = (id: string | undefined) => settled.findIndex((one) => one.id === id)
        if (at(second) !== -1) expect(at(first)).toBeGreaterThanOrEqual(0)
        if (at(second) !== -1) expect(at(second)).toBeGreaterThan(at(first))
      }
    }
  })
})

describe('a job that was begun here', () => {
  const waiting = [
    item('1', 'a', { kind: 'begin' }),
    item('2', 'a', set('part.name', 'Quoin')),
    item('3', 'a', set('part.name', 'Quoin clamp')),
    item('4', 'b', set('part.name', 'Lever')),
  ]

  it('is known as long as it waits', () => {
    expect(begun(waiting)).toEqual(['a'])
    expect(begun(waiting.slice(1))).toEqual([])
  })

  it('has the name it was given last', () => {
    expect(typedAndWaiting(waiting, 'a', 'part.name')).toBe('Quoin clamp')
    expect(typedAndWaiting(waiting, 'a', 'part.wall')).toBeUndefined()
    expect(typedAndWaiting([], 'a', 'part.name')).toBeUndefined()
  })
})
