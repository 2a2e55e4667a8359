import { describe, expect, it } from 'vitest'
import {
  inserted,
  laidDown,
  moved,
  pointsOf,
  ranOn,
  without,
  withWaiting,
  type FaceOnMap,
  type Line,
} from './edit'
import { at, type At } from './view'

const line = (crack: string, points: At[], more: Partial<Line> = {}): Line => ({
  crack,
  letter: crack.toUpperCase(),
  points,
  walls: points.map(() => null),
  length_words: '',
  from_behind: false,
  in_round: 1,
  earlier: [],
  witness: [at(0, 0)],
  groove: [],
  margin: [],
  becomes: 'repair',
  ...more,
})

const face: FaceOnMap = {
  id: 'f',
  name: 'face 1',
  size_words: '',
  frame: { left_mm: 0, top_mm: 0, right_mm: 100, bottom_mm: 80 },
  rims: [],
  lines: [
    line('a', [at(20, 50), at(50, 50), at(80, 50)], { walls: [12, null, 14] }),
    line('b', [at(50, 50), at(50, 70)]),
    line('b', [at(50, 50), at(50, 75)], { from_behind: true }),
  ],
  holes: [],
  pins: [],
  locks: [],
  marks: [],
  tacks: [],
  punches: [],
  clashes: [],
}

const points = (drawn: ReturnType<typeof moved>) =>
  drawn.map((it) => [it.mark, it.shape?.kind === 'line' ? it.shape.points : null])

describe('a crack on the map', () => {
  it('takes along what is joined to it', () => {
    expect(points(moved(face, 'a', 1, at(51, 48)))).toEqual([
      ['a', [{ ...at(20, 50), wall_mm: 12 }, at(51, 48), { ...at(80, 50), wall_mm: 14 }]],
      ['b', [at(51, 48), at(50, 70)]],
    ])
    expect(moved(face, 'a', 9, at(0, 0))).toEqual([])
  })

  it('lies beside marks that are moved alone', () => {
    const marked: FaceOnMap = {
      ...face,
      marks: [
        {
          id: 'h',
          what: 'bolt_hole',
          name: 'bolt hole 1',
          words: '',
          shape: { kind: 'circle', ...at(50, 50), radius_mm: 6 },
          middle: at(50, 50),
        },
        {
          id: 'm',
          what: 'missing_piece',
          name: 'missing piece 1',
          words: '',
          shape: { kind: 'outline', points: [at(0, 0), at(9, 0), at(0, 9)] },
          middle: at(4.5, 4.5),
        },
      ],
    }
    expect(moved(marked, 'h', 0, at(60, 52.004))).toEqual([
      { mark: 'h', face: 'f', shape: { kind: 'circle', ...at(60, 52), radius_mm: 6 } },
    ])
    expect(moved(marked, 'm', 2, at(1, 8))[0]?.shape).toEqual({
      kind: 'outline',
      points: [at(0, 0), at(9, 0), at(1, 8)],
    })
    expect(moved(marked, 'm', 3, at(1, 8))).toEqual([])
    expect(pointsOf(marked, 'h')).toHaveLength(1)
    expect(pointsOf(marked, 'gone')).toBeUndefined()
  })

  it('gets a point, and loses one while it keeps two', () => {
    expect(points(inserted(face, 'b', 0, at(50.004, 60)))).toEqual([
      ['b', [at(50, 50), at(50, 60), at(50, 70)]],
    ])
    expect(points(without(face, 'a', 1))[0]?.[1]).toHaveLength(2)
    expect(without(face, 'b', 1)).toEqual([])
  })

  it('shares a point with what it lands on', () => {
    const presses = [
      { place: at(30, 50), onto: { mark: 'a', before: 0 } },
      { place: at(30, 20), onto: null },
    ]
    const both = laidDown(face, 'c', presses, [at(30, 50), at(30, 20)])
    expect(points(both).map(([mark]) => mark)).toEqual(['c', 'a'])
    expect(points(both)[1]?.[1]).toContainEqual(at(30, 50))
  })

  it('runs on from the end that is nearer', () => {
    expect(points(ranOn(face, 'a', at(5, 50)))[0]?.[1]?.[0]).toEqual(at(5, 50))
    expect(points(ranOn(face, 'b', at(50, 79)))[0]?.[1]?.at(-1)).toEqual(at(50, 79))
    expect(ranOn(face, 'z', at(0, 0))).toEqual([])
  })

  it('is shown where it was drawn before the server has it', () => {
    const waiting = moved(face, 'b', 1, at(60, 70))
    const shown = withWaiting(face, waiting)
    expect(shown.lines[1]?.points[1]).toEqual(at(60, 70))
    expect(shown.lines[1]?.witness).toEqual([])
    expect(shown.lines[2]).toBe(face.lines[2])
    expect(withWaiting(face, [])).toBe(face)
  })
})
