import { pointsOf, type FaceOnMap } from './edit'
import { footOn, within, type Around } from './snap'
import { distance, type At } from './view'

/** What is chosen on the map: a crack or a mark, and one of its points. */
export interface Chosen {
  id: string
  point: number | null
}

/** What a press may land on. */
export function aroundOf(face: FaceOnMap): Around {
  return {
    lines: face.lines
      .filter((line) => !line.from_behind)
      .map((line) => ({ mark: line.crack, points: line.points })),
    rims: face.rims,
    circles: face.marks.flatMap(({ shape, what }) =>
      shape.kind === 'circle' && what !== 'hard_spot' ? [shape] : [],
    ),
  }
}

/** How far a press is off a mark; within an outline it is as far as may be, so that what lies in it goes first. */
function offShape(shape: FaceOnMap['marks'][number]['shape'], place: At, reach: number): number {
  switch (shape.kind) {
    case 'circle':
      return Math.max(0, distance(place, shape) - shape.radius_mm)
    case 'place':
      return distance(place, shape)
    case 'line':
      return footOn(shape.points, place)?.off ?? Infinity
    case 'outline': {
      const off = footOn([...shape.points, ...shape.points.slice(0, 1)], place)?.off ?? Infinity
      return within(shape.points, place) ? Math.min(off, reach) : off
    }
  }
}

/** The thing that was meant by a press; nothing where none is near. */
export function nearestTo(face: FaceOnMap, place: At, reach: number): Chosen | null {
  const lines = face.lines
    .filter((line) => !line.from_behind)
    .flatMap((line) => {
      const foot = footOn(line.points, place)
      if (foot === null) return []
      const point = line.points.findIndex((candidate) => distance(candidate, place) <= reach)
      return [{ id: line.crack, point: point === -1 ? null : point, off: foot.off }]
    })
  const marks = face.marks.map(({ id, shape }) => {
    const off = offShape(shape, place, reach)
    return { id, point: shape.kind === 'circle' || shape.kind === 'place' ? 0 : null, off }
  })
  const best = [...lines, ...marks].filter(({ off }) => off <= reach).toSorted((a, b) => a.off - b.off)[0]
  return best === undefined ? null : { id: best.id, point: best.point }
}

/** The next point on the map, from crack to crack. */
export function stepped(face: FaceOnMap, chosen: Chosen | null, by: 1 | -1): Chosen | null {
  const lines = face.lines
    .filter((line) => !line.from_behind)
    .flatMap((line) => line.points.map((_, point) => ({ id: line.crack, point })))
  const marks = face.marks.flatMap(({ id }) => (pointsOf(face, id) ?? []).map((_, point) => ({ id, point })))
  const all = [...lines, ...marks]
  if (all.length === 0) return null
  const here = all.findIndex(({ id, point }) => id === chosen?.id && point === (chosen.point ?? 0))
  const next =
    here === -1 || chosen?.point === null ? Math.max(here, 0) : (here + by + all.length) % all.length
  return all[next] ?? null
}
