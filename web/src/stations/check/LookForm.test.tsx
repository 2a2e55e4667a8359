// @vitest-environment jsdom
import { cleanup, render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { afterEach, describe, expect, it, vi } from 'vitest'
import type { Schemas } from '../../api/client'
import { LookForm } from './LookForm'

const { bench } = vi.hoisted(() => ({
  bench: { say: vi.fn((change: { kind: string }) => `${change.kind}-id`), take: vi.fn() },
}))

vi.mock('../../job/JobContext', () => ({ useJob: () => ({ view: { id: 'a-job' }, say: bench.say }) }))
vi.mock('../../job/ShopContext', () => ({ useShop: () => ({ units: 'metric' }) }))
vi.mock('../../job/TablesContext', () => ({ useTables: () => ({ picture_mb: 20 }) }))
vi.mock('../../job/Field', () => ({ Field: ({ name }: { name: string }) => <p>{name}</p> }))
vi.mock('../../api/queue/pictures', () => ({ pictureBox: { take: bench.take } }))
vi.mock('../../api/queue/outbox', () => ({
  outbox: { subscribe: () => () => undefined, now: () => ({ refusals: [], reached: false, waiting: [] }) },
}))

const place = (verdict: Schemas['CheckState'], sentence = '') =>
  ({
    place: { what: 'cracks_again' },
    words: 'A',
    looks: [],
    verdict,
    sentence,
  }) as unknown as Schemas['PlaceLine']
const CRACK: Schemas['FoundChoice'] = {
  found: 'crack',
  words: 'A crack',
  limit: 'none; under 10 mm, stopped, it may be watched',
  measured: 'How long',
  counted: false,
  then: [
    { then: 'watch', words: 'Watched: punch marks and a date' },
    { then: 'new_round', words: 'A new round' },
  ],
}

afterEach(() => {
  cleanup()
  vi.clearAllMocks()
})

async function written(then: string, done: () => void, at = place('left')) {
  render(<LookForm place={at} choice={CRACK} onDone={done} onBack={() => undefined} />)
  await userEvent.type(screen.getByLabelText('How long'), '6 mm')
  await userEvent.click(screen.getByText(then))
  const file = new File(['a'], 'crack.jpg', { type: 'image/jpeg' })
  await userEvent.upload(screen.getByLabelText('Pictures: A crack, A'), file)
  await userEvent.click(screen.getByText('Write it down'))
  return file
}

describe('what was found', () => {
  it('and is watched is a crack of the map from then on, with a day to look at it again', async () => {
    const done = vi.fn()
    const file = await written('Watched: punch marks and a date', done)
    expect(bench.take).toHaveBeenCalledWith('a-job', file, '', 20, 'look-id')
    await userEvent.click(screen.getByText('Onto the list of cracks, watched'))
    const sets = bench.say.mock.calls.map(
      ([change]) => change as { kind: string; key?: string; typed?: unknown },
    )
    expect(sets.map(({ kind, key, typed }) => (kind === 'set' ? [key, typed] : kind))).toEqual([
      'look',
      'add_crack',
      ['crack.add_crack-id.becomes', 'leave'],
      ['crack.add_crack-id.becomes_why', 'found at the check: A'],
      ['crack.add_crack-id.length', '6 mm'],
    ])
    expect(screen.getByText('crack.add_crack-id.look_again')).toBeDefined()
    expect(done).not.toHaveBeenCalled()
    await userEvent.click(screen.getByText('Done'))
    expect(done).toHaveBeenCalledOnce()
  })

  it('and is too long to be watched goes on no list', async () => {
    await written(
      'Watched: punch marks and a date',
      vi.fn(),
      place('not_ok', 'A crack, 12 mm: not good enough'),
    )
    expect(screen.getByText('A crack, 12 mm: not good enough')).toBeDefined()
    expect(screen.queryByText('Onto the list of cracks, watched')).toBeNull()
    expect(bench.say).toHaveBeenCalledOnce()
  })

  it('and is put right otherwise is written down and done', async () => {
    const done = vi.fn()
    await written('A new round', done)
    expect(bench.say).toHaveBeenCalledOnce()
    expect(done).toHaveBeenCalledOnce()
  })
})
