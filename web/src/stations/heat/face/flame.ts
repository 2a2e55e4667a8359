import type { Schemas } from '../../../api/client'
import type { At } from '../../../job/face/picture'

export type Flame = Schemas['FlamePlacement']

/** Where nothing else was put: as it was said, else over the crack. */
export const UNSAID: Flame = { at: null, swept: false, path: [] }

/** More places than these nobody draws; the server takes no more. */
const PATH_MOST = 24

/** The flame held at a place. */
export const heldAt = (at: At): Flame => ({ at, swept: false, path: [] })

/** The same flame swept on to a further place; `from` is where it is while it was put nowhere. */
export function sweptOn(flame: Flame, from: At, to: At): Flame {
  const path = flame.path ?? []
  const so_far = path.length > 0 ? path : [flame.at ?? from]
  return so_far.length >= PATH_MOST ? flame : { at: to, swept: false, path: [...so_far, to] }
}

/** Its last place moved, as arrows move it. */
export function lastMoved(flame: Flame, to: At): Flame {
  const path = flame.path ?? []
  return { at: to, swept: false, path: path.length > 1 ? [...path.slice(0, -1), to] : [] }
}

/** It is swept along a line. */
export const isAlong = (flame: Flame): boolean => (flame.path ?? []).length > 1
