import { placeText, stepMm } from '../../../quantity/place'
import { useMemo, useRef, useState, type KeyboardEvent, type ReactNode } from 'react'
import type { UnitSystem } from '../../../api/client'
import { useSize, type Size } from '../../../ui/useWidth'
import { inserted, moved, pointsOf, type Drawn, type FaceOnMap } from './edit'
import { Labels } from './Labels'
import { Layers } from './Layers'
import { RULER, Rulers } from './Rulers'
import { footOn, landed, within, type Around, type Landed } from './snap'
import { usePan } from './usePan'
import {
  at,
  distance,
  fitted,
  pathOf,
  toPixel,
  toPlace,
  zoomed,
  type At,
  type Pixel,
  type View,
} from './view'

/** What is chosen on the map: a crack or a mark, and one of its points. */
export interface Chosen {
  id: string
  point: number | null
}

export interface MapSheetProps {
  job: string
  face: FaceOnMap
  units: UnitSystem
  chosen: Chosen | null
  onChoose: (chosen: Chosen | null) => void
  /** Something is being drawn: what was pressed of it so far. */
  drawing: readonly At[] | null
  onPress: (landed: Landed) => void
  onFinish: () => void
  onGiveUp: () => void
  /** Points were moved: with what is joined to them. */
  onDraw: (drawn: Drawn[]) => void
  onTakeOut: (crack: string, point: number) => void
}

/** How near a press has to be to what is meant, in pixels: a finger is broader than a pointer. */
const REACH = { mouse: 10, touch: 24 }

interface Held {
  crack: string
  point: number
  to: At
  landed: Landed
}

/** The face as it lies on the bench, to be looked at, drawn on and measured. */
export function MapSheet(props: MapSheetProps): ReactNode {
  const { job, face, units, chosen, onChoose, drawing, onPress, onFinish, onGiveUp, onDraw, onTakeOut } =
    props
  const [frame, size] = useSize<SVGSVGElement>({ width: 880, height: 420 })
  const [looked, look] = useState<View | null>(null)
  const [held, setHeld] = useState<Held | null>(null)
  const [cursor, setCursor] = useState<At | null>(null)
  const view = looked ?? besideRulers(face, size)
  // The same while it is held, wherever it is: what lies still is not drawn anew.
  const lift = held === null ? null : `${held.crack} ${held.point}`
  const still = useMemo(
    () => without(face, held),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- which of them are held, not where they are
    [face, lift],
  )
  const inHand = held === null ? null : lifted(face, held)
  const reach = (touch: boolean) => (touch ? REACH.touch : REACH.mouse) / view.scale
  const around = useRef<{ of: FaceOnMap; around: Around } | null>(null)
  const land = (place: At, touch: boolean, not: string | null): Landed => {
    if (around.current?.of !== face) around.current = { of: face, around: aroundOf(face) }
    return landed(around.current.around, place, reach(touch), not)
  }
  const line = face.lines.find((candidate) => candidate.crack === chosen?.id && !candidate.from_behind)
  const points = chosen === null ? [] : (pointsOf(face, chosen.id) ?? [])
  const press = (place: At, touch: boolean) => {
    if (drawing === null) onChoose(nearestTo(face, place, reach(touch)))
    else onPress(land(place, touch, null))
  }
  const hands = usePan(frame, {
    look: (change) => look((before) => change(before ?? view)),
    grab: (pixel, touch) => {
      if (drawing !== null || chosen === null) return false
      const place = toPlace(view, pixel)
      const point = points.findIndex((candidate) => distance(candidate, place) <= reach(touch))
      const to = points[point]
      if (to === undefined) return false
      setHeld({ crack: chosen.id, point, to, landed: { place: to, onto: null } })
      return true
    },
    drag: (pixel) =>
      setHeld((before) => {
        if (before === null) return null
        const place = toPlace(view, pixel)
        // A mark lies where it is put: only cracks are joined.
        const there = line === undefined ? { place, onto: null } : land(place, false, before.crack)
        return { ...before, to: there.place, landed: there }
      }),
    drop: (wasMoved) => {
      if (held !== null) onChoose({ id: held.crack, point: held.point })
      if (held !== null && wasMoved) onDraw(letGo(face, held))
      setHeld(null)
    },
    press: (pixel, touch) => press(toPlace(view, pixel), touch),
  })
  const step = (event: KeyboardEvent): At | null => {
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
  const onTheRule = (place: At): At => {
    const mm = stepMm(units, 'usual')
    return at(Math.round(place.x_mm / mm) * mm, Math.round(place.y_mm / mm) * mm)
  }
  const middle = (): Pixel => ({ x: size.width / 2, y: size.height / 2 })
  const handleKey = (event: KeyboardEvent<SVGSVGElement>) => {
    const by = step(event)
    const point = chosen?.point ?? null
    const from = point === null ? undefined : (held?.to ?? points[point])
    if (by !== null && drawing !== null) {
      const here = cursor ?? drawing.at(-1) ?? onTheRule(toPlace(view, middle()))
      setCursor(at(here.x_mm + by.x_mm, here.y_mm + by.y_mm))
    } else if (by !== null && chosen !== null && point !== null && from !== undefined) {
      const to = at(from.x_mm + by.x_mm, from.y_mm + by.y_mm)
      setHeld({ crack: chosen.id, point, to, landed: { place: to, onto: null } })
    } else if (by !== null) {
      look({ ...view, x: view.x - by.x_mm * 20, y: view.y - by.y_mm * 20 })
    } else if (event.key === 'Enter' && drawing !== null) {
      const last = drawing.at(-1)
      const here = cursor ?? onTheRule(toPlace(view, middle()))
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
    else return
    event.preventDefault()
    event.stopPropagation()
  }
  const release = () => {
    if (held === null) return
    onDraw(letGo(face, held))
    setHeld(null)
  }
  // Moved as it is painted: only coming nearer paints it anew.
  const moves = { transform: `translate(${view.x}px, ${view.y}px)`, willChange: 'transform' }
  const handles = drawing !== null ? [] : points
  const crosshair = drawing === null || cursor === null ? null : toPixel(view, cursor)
  // Where the cross is, or the point that was chosen: read off the rules.
  const moved = chosen?.point == null ? undefined : (held?.to ?? points[chosen.point])
  const read = drawing === null ? (held === null ? undefined : moved) : (cursor ?? undefined)
  const unit = units === 'imperial' ? 'in' : 'mm'
  const place =
    read === undefined
      ? ''
      : `${placeText(read.x_mm, units)} ${unit} from the left, ${placeText(read.y_mm, units)} ${unit} from the top`
  return (
    <>
      <svg
        ref={frame}
        tabIndex={0}
        role="application"
        aria-label={`The map, ${face.name}. ${drawing === null ? 'Page down chooses the next point, arrows move it.' : 'Arrows move the cross, Enter sets a point, Enter again ends it.'}`}
        data-own-letters
        data-map={face.id}
        data-scale={view.scale}
        data-left={view.x}
        data-top={view.y}
        className={`block h-[400px] w-full shrink-0 touch-none overflow-hidden border-t border-l border-scribe max-bench:h-[46vh] ${drawing === null ? 'cursor-grab' : 'cursor-crosshair'}`}
        {...hands}
        onKeyDown={handleKey}
        onKeyUp={(event) => {
          if (step(event) !== null && drawing === null) release()
        }}
        onBlur={release}
      >
        <g style={moves}>
          <g transform={`scale(${view.scale})`} data-layers>
            <Layers job={job} face={still} chosen={chosen?.id ?? null} />
            {drawing !== null && drawing.length > 0 && (
              <path
                d={pathOf(drawing)}
                fill="none"
                stroke="var(--chalk)"
                strokeWidth="3"
                strokeDasharray="6 4"
                style={{ vectorEffect: 'non-scaling-stroke' }}
              />
            )}
          </g>
        </g>
        {inHand !== null && (
          <g style={moves}>
            <g transform={`scale(${view.scale})`}>
              <Layers job={job} face={inHand} chosen={chosen?.id ?? null} />
            </g>
          </g>
        )}
        <g style={moves}>
          <Labels face={still} scale={view.scale} chosen={chosen?.id ?? null} narrow={size.width < 600} />
        </g>
        <g style={moves}>
          {handles.map((place, index) => {
            const there = held?.point === index && held.crack === chosen?.id ? held.to : place
            const big = chosen?.point === index
            return (
              <circle
                key={index}
                data-point={index}
                cx={there.x_mm * view.scale}
                cy={there.y_mm * view.scale}
                r={big ? 8 : 4.5}
                fill={big ? 'var(--chalk)' : 'var(--iron)'}
                stroke={big ? 'var(--iron)' : 'var(--chalk)'}
                strokeWidth="2"
              />
            )
          })}
          {drawing?.map((place, index) => (
            <circle
              key={index}
              cx={place.x_mm * view.scale}
              cy={place.y_mm * view.scale}
              r="5"
              fill="var(--chalk)"
              stroke="var(--iron)"
              strokeWidth="2"
            />
          ))}
        </g>
        {crosshair !== null && (
          <path
            d={`M${crosshair.x - 22} ${crosshair.y}h44M${crosshair.x} ${crosshair.y - 22}v44`}
            stroke="var(--chalk)"
            strokeWidth="1.5"
          />
        )}
        <Rulers view={view} width={size.width} height={size.height} units={units} />
      </svg>
      <p role="status" className="min-h-6 text-ash" data-testid="cross">
        {place}
      </p>
    </>
  )
}

/** All of the face, clear of the rulers along its edges. */
function besideRulers(face: FaceOnMap, { width, height }: Size): View {
  const view = fitted(face.frame, Math.max(width - RULER.left, 50), Math.max(height - RULER.top, 50))
  return { ...view, x: view.x + RULER.left, y: view.y + RULER.top }
}

/** What was held is let go: joined to what it was let go on. */
function letGo(face: FaceOnMap, held: Held): Drawn[] {
  const { onto, place } = held.landed
  const joined = onto === null ? [] : inserted(face, onto.mark, onto.before, place)
  return [...moved(face, held.crack, held.point, held.to), ...joined]
}

/** What is held and what moves with it, lifted off the face: only that is drawn anew while it moves. */
function lifted(face: FaceOnMap, held: Held): FaceOnMap {
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
function without(face: FaceOnMap, held: Held | null): FaceOnMap {
  if (held === null) return face
  const off = new Set(moved(face, held.crack, held.point, held.to).map((it) => it.mark))
  return {
    ...face,
    lines: face.lines.filter((line) => line.from_behind || !off.has(line.crack)),
    marks: face.marks.filter((mark) => !off.has(mark.id)),
  }
}

function aroundOf(face: FaceOnMap): Around {
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
function nearestTo(face: FaceOnMap, place: At, reach: number): Chosen | null {
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
function stepped(face: FaceOnMap, chosen: Chosen | null, by: 1 | -1): Chosen | null {
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
