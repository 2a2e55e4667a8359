import { placeText } from '../../../quantity/place'
import {
  useImperativeHandle,
  useMemo,
  useRef,
  useState,
  type KeyboardEvent,
  type ReactNode,
  type RefObject,
} from 'react'
import type { UnitSystem } from '../../../api/client'
import { useSize, type Size } from '../../../ui/useWidth'
import { pointsOf, type Drawn, type FaceOnMap } from './edit'
import { Handles } from './Handles'
import { letGo, lifted, without, type Held } from './held'
import { Labels } from './Labels'
import { Layers } from './Layers'
import { RULER, Rulers } from './Rulers'
import { keyed, step } from './map-keys'
import { aroundOf, nearestTo, type Chosen } from './near'
import { landed, type Around, type Landed } from './snap'
import { usePan } from './usePan'
import { distance, fitted, pathOf, toPixel, toPlace, type At, type Pixel, type View } from './view'

export interface MapSheetProps {
  job: string
  /** Where the keys of the map are. */
  map: RefObject<SVGSVGElement | null>
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

function placeWords({ x_mm, y_mm }: At, units: UnitSystem): string {
  const unit = units === 'imperial' ? 'in' : 'mm'
  return `${placeText(x_mm, units)} ${unit} from the left, ${placeText(y_mm, units)} ${unit} from the top`
}

/** The face as it lies on the bench, to be looked at, drawn on and measured. */
export function MapSheet(props: MapSheetProps): ReactNode {
  const { job, map, face, units, chosen, onChoose, drawing, onPress, onFinish, onGiveUp, onDraw, onTakeOut } =
    props
  const [frame, size] = useSize<SVGSVGElement>({ width: 880, height: 420 })
  useImperativeHandle<SVGSVGElement | null, SVGSVGElement | null>(map, () => frame.current)
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
  const middle = (): Pixel => ({ x: size.width / 2, y: size.height / 2 })
  const handleKey = (event: KeyboardEvent<SVGSVGElement>) => {
    const taken = keyed(event, {
      ...{ face, units, view, chosen, held, points, line, drawing, cursor, middle, land },
      ...{ look, setHeld, setCursor, onChoose, onPress, onFinish, onGiveUp, onTakeOut },
    })
    if (!taken) return
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
  const crosshair = drawing === null || cursor === null ? null : toPixel(view, cursor)
  // Where the cross is, or the point that was chosen: read off the rules.
  const moved = chosen?.point == null ? undefined : (held?.to ?? points[chosen.point])
  const read = drawing === null ? (held === null ? undefined : moved) : (cursor ?? undefined)
  const place = read === undefined ? '' : placeWords(read, units)
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
          if (step(event, units) !== null && drawing === null) release()
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
          <Handles
            points={drawing !== null ? [] : points}
            chosen={chosen}
            held={held}
            drawing={drawing}
            scale={view.scale}
          />
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
