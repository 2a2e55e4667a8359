import { describe, expect, it } from 'vitest'
import type { Schemas } from '../../api/client'
import { apart, pointsOn, spots } from './spots'

const place = (
  number: number,
  verdict: Schemas['CheckState'],
  face: string | null,
): Schemas['PlaceLine'] => ({
  place: { what: 'toes' },
  number,
  words: `${number}`,
  verdict,
  sentence: '',
  looks: [],
  points: [],
  on_map: face === null ? [] : [{ face, at: { x_mm: 10, y_mm: 20 }, behind: false }],
})

const line = (...places: Schemas['PlaceLine'][]): Schemas['CheckLine'] => ({
  key: 'check.toes',
  label: 'Toes whole',
  how: '',
  verdict: 'open',
  places,
  choices: [],
  due_ms: null,
})

describe('spots', () => {
  it.each([
    ['not good before all', ['ok', 'not_ok', 'open'], 'not_ok'],
    ['open before what is left', ['left', 'open', 'ok'], 'open'],
    ['left before good', ['ok', 'left'], 'left'],
    ['good where all is', ['ok', 'ok'], 'ok'],
  ] as const)('show the worst of what is looked for there: %s', (_, verdicts, worst) => {
    const lines = verdicts.map((verdict) => line(place(1, verdict, 'front')))
    expect(spots(lines)).toEqual([
      { number: 1, words: '1', face: 'front', at: { x_mm: 10, y_mm: 20 }, behind: false, verdict: worst },
    ])
  })

  it('have numbers that lie over none other', () => {
    const lines = Array.from({ length: 7 }, (_, at) => line(place(at + 1, 'open', 'front')))
    const set = apart(spots(lines), 5)
    const near = set.flatMap((a) => set.filter((b) => a !== b && Math.hypot(a.x - b.x, a.y - b.y) < 10))
    expect([set.length, near.length]).toEqual([7, 0])
  })

  it('lie on their face, and nowhere where it is not drawn', () => {
    expect(spots([line(place(1, 'open', null), place(2, 'open', 'back'))]).map((it) => it.face)).toEqual([
      'back',
    ])
  })
})

describe('where the file is tried', () => {
  const at = { x_mm: 5, y_mm: 6 }
  const filed = (verdict: Schemas['CheckState']) => line({ ...place(1, verdict, 'front'), points: [at] })

  it('stands on its face until it was', () => {
    expect(pointsOn([filed('open')], 'front')).toEqual([at])
    expect(pointsOn([filed('open')], 'back')).toEqual([])
    expect(pointsOn([filed('ok')], 'front')).toEqual([])
  })

  it('is not drawn where it lies behind', () => {
    const on_map = [{ face: 'front', at, behind: true }]
    const behind = { ...place(1, 'open', 'front'), on_map, points: [at] }
    expect(pointsOn([line(behind)], 'front')).toEqual([])
  })
})
