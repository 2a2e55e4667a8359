import { useId, useMemo, useState, type KeyboardEvent, type PointerEvent, type ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import type { Theme } from '../../quantity/heat-colour'
import { useSize } from '../../ui/useWidth'
import { imageOf, moved, pathOf, placeAt, withRoom, type At } from './picture'

export interface FacePictureProps {
  heat: Schemas['FaceHeat']
  moment: Schemas['FaceMoment']
  /** Where the flame was put; the heat there may still be on its way. Nothing while it is off. */
  put: At | null
  /** Along these it is swept. */
  path: readonly At[]
  theme: Theme
  /** Missing where it is shown as it was, and nothing can be moved. */
  onFlame?: (at: At, moved: boolean) => void
}

/** Of the screen's height: its slider is seen with it. */
const HIGHEST_VH = 44
/** Arrows move the flame by so much of the picture's width. */
const STEPS = 24

/** The face with its heat at one moment; the flame is put where a finger or the arrows put it. */
export function FacePicture({ heat, moment, put, path, theme, onFlame }: FacePictureProps): ReactNode {
  const clip = useId()
  const frame = heat.frame as [number, number, number, number]
  const [left, top, right, bottom] = frame
  const wide = right - left
  const [box, size] = useSize<HTMLDivElement>({ width: 600, height: 400 })
  const [held, setHeld] = useState<At | null>(null)
  const image = useMemo(() => imageOf(moment.celsius, heat.columns, theme), [moment, heat.columns, theme])
  const px = wide / Math.max(1, size.width)
  const cell = wide / heat.columns
  const at = held ?? put ?? heat.flame
  const isThere = heat.logged || (held === null && at.x_mm === heat.flame.x_mm && at.y_mm === heat.flame.y_mm)
  const below = at.y_mm + 60 * px < bottom
  const flameWords = { x_mm: at.x_mm, y_mm: at.y_mm + (below ? 40 : -40) * px }
  const taken = [
    ...moment.tips.map((tip) => ({ at: tip.at, words: tip.short })),
    { at: flameWords, words: moment.flame_words },
  ]
  const pressed = (event: PointerEvent): At => {
    const within = box.current?.getBoundingClientRect() ?? { left: 0, top: 0, width: 1, height: 1 }
    return placeAt(within, { x: event.clientX, y: event.clientY }, frame)
  }
  const handleKey = (event: KeyboardEvent) => {
    if (event.key === 'Enter') onFlame?.(at, false)
    const to = moved(at, event.key, wide / STEPS, frame)
    if (to === null) return
    event.preventDefault()
    event.stopPropagation()
    onFlame?.(to, true)
  }
  return (
    <div
      ref={box}
      className={`relative w-full ${onFlame === undefined ? '' : 'touch-none'}`}
      style={{
        aspectRatio: `${wide} / ${bottom - top}`,
        maxWidth: `${(wide / (bottom - top)) * HIGHEST_VH}vh`,
      }}
      onPointerUp={(event) => {
        setHeld(null)
        onFlame?.(pressed(event), false)
      }}
      onPointerMove={(event) => {
        if (held !== null) setHeld(pressed(event))
      }}
    >
      <svg viewBox={`${left} ${top} ${wide} ${bottom - top}`} className="block h-full w-full" aria-hidden>
        <clipPath id={clip}>
          <path d={pathOf(heat.rims)} clipRule="evenodd" />
        </clipPath>
        <image
          href={image}
          x={left}
          y={top}
          width={wide}
          height={(moment.celsius.length / heat.columns) * cell}
          preserveAspectRatio="none"
          clipPath={`url(#${clip})`}
        />
        <path
          d={pathOf(heat.rims)}
          fill="none"
          stroke="var(--chalk)"
          strokeWidth={2 * px}
          strokeLinejoin="round"
        />
        {heat.cracks.map((crack, index) => (
          <polyline
            key={index}
            points={crack.map((point) => `${point.x_mm},${point.y_mm}`).join(' ')}
            fill="none"
            stroke="var(--chalk)"
            strokeWidth={3 * px}
          />
        ))}
        {withRoom(moment.places, taken, px).map((place) => (
          <Words key={`${place.at.x_mm} ${place.at.y_mm}`} at={place.at} px={px} frame={frame} middle>
            {place.words}
          </Words>
        ))}
        {moment.tips.map((tip, index) => (
          <g key={index}>
            <circle
              cx={tip.at.x_mm}
              cy={tip.at.y_mm}
              r={10 * px}
              fill="none"
              stroke="var(--chalk)"
              strokeWidth={2 * px}
              strokeDasharray={tip.state === 'shut' ? undefined : `${4 * px} ${3 * px}`}
            />
            <Words at={tip.at} px={px} frame={frame} strong={tip.state === 'runs'}>
              {tip.short}
            </Words>
          </g>
        ))}
        <polyline
          points={path.map((place) => `${place.x_mm},${place.y_mm}`).join(' ')}
          fill="none"
          stroke="var(--chalk)"
          strokeWidth={2 * px}
          strokeDasharray={`${2 * px} ${6 * px}`}
        />
        {(put !== null || held !== null) && (
          <>
            <circle cx={at.x_mm} cy={at.y_mm} r={3 * px} fill="var(--chalk)" />
            <Words at={flameWords} px={px} frame={frame} middle>
              {isThere ? moment.flame_words : ''}
            </Words>
          </>
        )}
      </svg>
      {onFlame !== undefined && (
        <FlameHandle
          at={at}
          words={moment.flame_words}
          onHold={() => setHeld(at)}
          onKeyDown={handleKey}
          frame={frame}
        />
      )}
    </div>
  )
}

interface FlameHandleProps {
  at: At
  words: string
  frame: readonly [number, number, number, number]
  onHold: () => void
  onKeyDown: (event: KeyboardEvent) => void
}

/** What the flame is moved by, with a finger or with arrows. */
function FlameHandle({ at, words, frame, onHold, onKeyDown }: FlameHandleProps): ReactNode {
  const [left, top, right, bottom] = frame
  return (
    <button
      type="button"
      aria-label={`Flame, ${words} under it: arrows move it`}
      className="absolute h-[52px] w-[52px] -translate-x-1/2 -translate-y-1/2 cursor-grab rounded-full border-2 border-chalk"
      style={{
        left: `${((at.x_mm - left) / (right - left)) * 100}%`,
        top: `${((at.y_mm - top) / (bottom - top)) * 100}%`,
      }}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId)
        onHold()
      }}
      onKeyDown={onKeyDown}
    />
  )
}

interface WordsProps {
  at: At
  px: number
  frame: readonly [number, number, number, number]
  middle?: boolean
  strong?: boolean
  children: string
}

/** Words beside a place, on the side where there is room for them. */
function Words({ at, px, frame, middle = false, strong = false, children }: WordsProps): ReactNode {
  const fromRight = !middle && at.x_mm > frame[0] + (frame[2] - frame[0]) * 0.62
  const off = middle ? 0 : (fromRight ? -16 : 16) * px
  return (
    <text
      x={at.x_mm + off}
      y={at.y_mm + 5 * px}
      fontSize={(strong ? 19 : 17) * px}
      fontWeight={strong ? 700 : 600}
      textAnchor={middle ? 'middle' : fromRight ? 'end' : 'start'}
      fill="var(--chalk)"
      stroke="var(--iron)"
      strokeWidth={4 * px}
      paintOrder="stroke"
    >
      {children}
    </text>
  )
}
