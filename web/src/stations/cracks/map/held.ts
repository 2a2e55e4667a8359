import { inserted, moved, type Drawn, type FaceOnMap } from './edit'
import type { Landed } from './snap'
import type { At } from './view'

/** A point that is held, and where it would land. */
export interface Held {
  crack: string
  point: number
  to: At
  landed: Landed
}

/** What was held is let go: joined to what it was let go on. */
export function letGo(face: FaceOnMap, held: Held): Drawn[] {
  const { onto, place } = held.landed
  const joined = onto === null ? [] : inserted(face, onto.mark, onto.before, place)
  return [...moved(face, held.crack, held.point, held.to), ...joined]
}

/** What is held and what moves with it, lifted off the face: only that is drawn anew while it moves. */
export function lifted(face: FaceOnMap, held: Held): FaceOnMap {
  const shapes = new Map(moved(face, held.crack, held.point, held.to).map((it) => [it.mark, it.shape]))
  return {
    ...face,
    seen: null,
    rims: [],
    holes: [],
    pins: [],
    locks: [],
    tacks: [],
    punches: [],
    clashes: [],
    lines: face.lines.flatMap((line) => {
      const shape = line.from_behind ? undefined : shapes.get(line.crack)
      return shape?.kind === 'line'
        ? [{ ...line, points: shape.points, witness: [], groove: [], margin: [], earlier: [] }]
        : []
    }),
    marks: face.marks.flatMap((mark) => {
      const shape = shapes.get(mark.id)
      return shape == null ? [] : [{ ...mark, shape }]
    }),
  }
}

/** The face without what is held. */
export function without(face: FaceOnMap, held: Held | null): FaceOnMap {
  if (held === null) return face
  const off = new Set(moved(face, held.crack, held.point, held.to).map((it) => it.mark))
  return {
    ...face,
    lines: face.lines.filter((line) => line.from_behind || !off.has(line.crack)),
    marks: face.marks.filter((mark) => !off.has(mark.id)),
  }
}
