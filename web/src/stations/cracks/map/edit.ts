import type { Schemas } from '../../../api/client'
import type { Landed } from './snap'
import { distance, rounded, type At } from './view'

export type Drawn = Schemas['Drawn']
export type Line = Schemas['LineOnFace']
export type FaceOnMap = Schemas['FacePlan']
type Vertex = Schemas['Vertex']

/** Two points closer than this are one. */
const ONE_MM = 0.02

const vertices = (points: readonly At[], walls: readonly (number | null | undefined)[]): Vertex[] =>
  points.map((place, index) => {
    const wall = walls[index]
    return wall == null ? rounded(place) : { ...rounded(place), wall_mm: wall }
  })

const asLine = (
  points: readonly At[],
  walls: readonly (number | null | undefined)[] = [],
): Schemas['Shape'] => ({
  kind: 'line',
  points: vertices(points, walls),
})

const drawn = (
  face: string,
  line: Line,
  points: readonly At[],
  walls: readonly (number | null | undefined)[],
): Drawn => ({
  mark: line.crack,
  face,
  shape: asLine(points, walls),
})

const linesOf = (face: FaceOnMap): Line[] => face.lines.filter((line) => !line.from_behind)

/** The points of a crack or a mark; nothing where it is not on this face. */
export function pointsOf(face: FaceOnMap, id: string): readonly At[] | undefined {
  const line = linesOf(face).find((candidate) => candidate.crack === id)
  if (line !== undefined) return line.points
  const shape = face.marks.find((mark) => mark.id === id)?.shape
  if (shape === undefined) return undefined
  return shape.kind === 'circle' || shape.kind === 'place' ? [shape] : shape.points
}

/** A hole, a spot, a piece or a place with one of its points moved. */
function movedMark(face: FaceOnMap, id: string, point: number, to: At): Drawn[] {
  const shape = face.marks.find((mark) => mark.id === id)?.shape
  if (shape === undefined || pointsOf(face, id)?.[point] === undefined) return []
  const put = (next: Schemas['Shape']): Drawn[] => [{ mark: id, face: face.id, shape: next }]
  switch (shape.kind) {
    case 'circle':
    case 'place':
      return put({ ...shape, ...rounded(to) })
    case 'line':
      return put({
        ...shape,
        points: shape.points.map((it, at) => (at === point ? { ...it, ...rounded(to) } : it)),
      })
    case 'outline':
      return put({ ...shape, points: shape.points.map((it, at) => (at === point ? rounded(to) : it)) })
  }
}

/** One point moved, and with it every point of another crack that is the same. */
export function moved(face: FaceOnMap, crack: string, point: number, to: At): Drawn[] {
  if (face.marks.some((mark) => mark.id === crack)) return movedMark(face, crack, point, to)
  const line = linesOf(face).find((candidate) => candidate.crack === crack)
  const from = line?.points[point]
  if (line === undefined || from === undefined) return []
  return linesOf(face).flatMap((other) => {
    const points = other.points.map((place, index) =>
      other.crack === crack ? (index === point ? to : place) : distance(place, from) <= ONE_MM ? to : place,
    )
    const changed = points.some((place, index) => place !== other.points[index])
    return changed ? [drawn(face.id, other, points, other.walls)] : []
  })
}

/** Another point between two of a line. */
export function inserted(face: FaceOnMap, crack: string, before: number, place: At): Drawn[] {
  const line = linesOf(face).find((candidate) => candidate.crack === crack)
  if (line === undefined) return []
  const points = line.points.toSpliced(before + 1, 0, place)
  return [drawn(face.id, line, points, line.walls.toSpliced(before + 1, 0, null))]
}

/** A line without one of its points; nothing where it would be none any more. */
export function without(face: FaceOnMap, crack: string, point: number): Drawn[] {
  const line = linesOf(face).find((candidate) => candidate.crack === crack)
  if (line === undefined || line.points.length < 3 || line.points[point] === undefined) return []
  return [drawn(face.id, line, line.points.toSpliced(point, 1), line.walls.toSpliced(point, 1))]
}

/** A new line of a crack; what it lands on gets a point there, so that both share it. */
export function laidDown(
  face: FaceOnMap,
  crack: string,
  presses: readonly Landed[],
  points: readonly At[],
): Drawn[] {
  const joined = presses.flatMap(({ place, onto }) =>
    onto === null ? [] : inserted(face, onto.mark, onto.before, place),
  )
  return [{ mark: crack, face: face.id, shape: asLine(points) }, ...joined]
}

/** A crack that ran on from whichever of its ends is nearer. */
export function ranOn(face: FaceOnMap, crack: string, to: At): Drawn[] {
  const line = linesOf(face).find((candidate) => candidate.crack === crack)
  const [first, last] = [line?.points[0], line?.points.at(-1)]
  if (line === undefined || first === undefined || last === undefined) return []
  return distance(first, to) < distance(last, to)
    ? [drawn(face.id, line, [to, ...line.points], [null, ...line.walls])]
    : [drawn(face.id, line, [...line.points, to], [...line.walls, null])]
}

/** A face with what was drawn on it and is still on its way. */
export function withWaiting(face: FaceOnMap, waiting: readonly Drawn[]): FaceOnMap {
  const here = waiting.filter((it) => it.face === face.id)
  if (here.length === 0) return face
  const shapes = new Map(here.map((it) => [it.mark, it.shape ?? null]))
  return {
    ...face,
    lines: face.lines.map((line) => {
      const shape = line.from_behind ? undefined : shapes.get(line.crack)
      return shape?.kind === 'line'
        ? {
            ...line,
            points: shape.points,
            walls: shape.points.map((vertex) => vertex.wall_mm ?? null),
            witness: [],
            groove: [],
            margin: [],
          }
        : line
    }),
    marks: face.marks.map((mark) => {
      const shape = shapes.get(mark.id)
      return shape == null ? mark : { ...mark, shape }
    }),
  }
}
