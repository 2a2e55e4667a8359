import type { KeyboardEvent } from 'react'
import type { UnitSystem } from '../../../api/client'
import { stepMm } from '../../../quantity/place'
import type { FaceOnMap } from './edit'
import type { Held } from './held'
import { stepped, type Chosen } from './near'
import type { Landed } from './snap'
import { at, distance, toPlace, zoomed, type At, type Pixel, type View } from './view'

/** The map as a key finds it, and what it may do there. */
export interface OnTheMap {
  face: FaceOnMap
  units: UnitSystem
  view: View
  chosen: Chosen | null
  held: Held | null
  points: readonly At[]
  line: FaceOnMap['lines'][number] | undefined
  drawing: readonly At[] | null
  cursor: At | null
  middle: () => Pixel
  land: (place: At, touch: boolean, not: string | null) => Landed
  look: (view: View | null) => void
  setHeld: (held: Held | null) => void
  setCursor: (cursor: At | null) => void
  onChoose: (chosen: Chosen | null) => void
  onPress: (landed: Landed) => void
  onFinish: () => void
  onGiveUp: () => void
  onTakeOut: (crack: string, point: number) => void
}

/** So far an arrow goes; nothing for any other key. */
export const step = (event: KeyboardEvent, units: UnitSystem): At | null => {
  const mm = stepMm(units, event.shiftKey ? 'fine' : event.ctrlKey ? 'large' : 'usual')
  switch (event.key) {
    case 'ArrowLeft':
      return at(-mm, 0)
    case 'ArrowRight':
      return at(mm, 0)
    case 'ArrowUp':
      return at(0, -mm)
    case 'ArrowDown':
      return at(0, mm)
    default:
      return null
  }
}
/** On a mark of the rule: from there the arrows go from mark to mark. */
const onTheRule = (place: At, units: UnitSystem): At => {
  const mm = stepMm(units, 'usual')
  return at(Math.round(place.x_mm / mm) * mm, Math.round(place.y_mm / mm) * mm)
}

/** What a key does on the map; false where it does nothing there. */
export function keyed(event: KeyboardEvent, on: OnTheMap): boolean {
  const { face, units, view, chosen, held, points, line, drawing, cursor, middle, land } = on
  const { look, setHeld, setCursor, onChoose, onPress, onFinish, onGiveUp, onTakeOut } = on
  const by = step(event, units)
  const point = chosen?.point ?? null
  const from = point === null ? undefined : (held?.to ?? points[point])
  if (by !== null && drawing !== null) {
    const here = cursor ?? drawing.at(-1) ?? onTheRule(toPlace(view, middle()), units)
    setCursor(at(here.x_mm + by.x_mm, here.y_mm + by.y_mm))
  } else if (by !== null && chosen !== null && point !== null && from !== undefined) {
    const to = at(from.x_mm + by.x_mm, from.y_mm + by.y_mm)
    setHeld({ crack: chosen.id, point, to, landed: { place: to, onto: null } })
  } else if (by !== null) {
    look({ ...view, x: view.x - by.x_mm * 20, y: view.y - by.y_mm * 20 })
  } else if (event.key === 'Enter' && drawing !== null) {
    const last = drawing.at(-1)
    const here = cursor ?? onTheRule(toPlace(view, middle()), units)
    if (last !== undefined && distance(last, here) < 0.01) onFinish()
    else {
      setCursor(here)
      onPress(land(here, false, null))
    }
  } else if (event.key === 'Escape') {
    setHeld(null)
    setCursor(null)
    if (drawing === null) onChoose(null)
    else onGiveUp()
  } else if ((event.key === 'PageDown' || event.key === 'PageUp') && drawing === null) {
    onChoose(stepped(face, chosen, event.key === 'PageDown' ? 1 : -1))
  } else if (event.key === 'Delete' && line !== undefined && point !== null) onTakeOut(line.crack, point)
  else if (event.key === '+' || event.key === '=') look(zoomed(view, 1.25, middle()))
  else if (event.key === '-') look(zoomed(view, 0.8, middle()))
  else if (event.key === 'Home') look(null)
  else return false
  return true
}
