import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { useShop } from '../../job/ShopContext'
import { atTheMark } from '../../quantity/ruler'
import { useWidth } from '../../ui/useWidth'

export interface CrackDrawingProps {
  cracks: readonly Schemas['CrackPlan'][]
  chosen: string
  onChoose: (id: string) => void
}

/** Room right of a crack for its stop-hole. */
const RIGHT = 120
/** Length in mm drawn for a crack whose length is not known. */
const UNKNOWN_MM = 50

/** Straight cracks below each other, one scale, with their stop-holes and a ruler. */
export function CrackDrawing({ cracks, chosen, onChoose }: CrackDrawingProps): ReactNode {
  const { units } = useShop()
  const longest = Math.max(...cracks.map((crack) => (crack.length_mm ?? UNKNOWN_MM) + 30))
  // As wide as its place, so that its words keep their size.
  const [frame, width] = useWidth<SVGSVGElement>(880, 300)
  const narrow = width < 600
  const left = narrow ? 84 : 150
  const scale = Math.min((width - left - (narrow ? 60 : RIGHT)) / longest, 9)
  const row = cracks.length > 4 ? 62 : cracks.length > 2 ? 84 : 116
  const height = 34 + cracks.length * row
  return (
    <svg
      ref={frame}
      viewBox={`0 0 ${width} ${height}`}
      className="w-full shrink-0"
      style={{ maxHeight: 400 }}
      role="group"
      aria-label="The cracks, to scale"
    >
      <Ruler scale={scale} units={units} left={left} width={width} />
      {cracks.map((crack, at) => (
        <Row
          key={crack.id}
          crack={crack}
          y={34 + at * row + row / 2 + 8}
          scale={scale}
          left={left}
          width={width}
          chosen={crack.id === chosen}
          onChoose={() => onChoose(crack.id)}
        />
      ))}
    </svg>
  )
}

interface RulerProps {
  scale: number
  units: 'metric' | 'imperial'
  left: number
  width: number
}

function Ruler({ scale, units, left, width }: RulerProps): ReactNode {
  const unit = units === 'imperial' ? 25.4 : 10
  const every = [1, 2, 5, 10, 20, 50].find((n) => n * unit * scale >= 46) ?? 100
  const count = Math.floor((width - left - 40) / (unit * scale))
  return (
    <g stroke="var(--dim)" fontSize="14">
      <path d={`M20 1.500H${width - 10}`} />
      {Array.from({ length: count + 1 }, (_, at) => {
        const x = left + at * unit * scale
        const named = at % every === 0
        return (
          <g key={at}>
            <path d={`M${x} 1.500v${named ? 12 : 6}`} />
            {named && (
              <text x={x + 4} y="22" fill="var(--ash)" stroke="none">
                {atTheMark(at * unit, units)}
                {at === 0 ? (units === 'imperial' ? ' in' : ' mm') : ''}
              </text>
            )}
          </g>
        )
      })}
    </g>
  )
}

interface RowProps {
  crack: Schemas['CrackPlan']
  y: number
  scale: number
  left: number
  width: number
  chosen: boolean
  onChoose: () => void
}

function Row({ crack, y, scale, left, width, chosen, onChoose }: RowProps): ReactNode {
  const length = crack.length_mm ?? UNKNOWN_MM
  const [x1, x2] = [left, left + length * scale]
  const middle = (x1 + x2) / 2
  // Where the words would lie in the stop-holes they stand below them.
  const short = x2 - x1 < 190
  // A crack is never straight: the drawing keeps its length and says so with a little play.
  const wander = `M${x1} ${y}l${(x2 - x1) * 0.18} -3 ${(x2 - x1) * 0.2} 5 ${(x2 - x1) * 0.24} -4 ${(x2 - x1) * 0.2} 4L${x2} ${y}`
  const witness = 3 * scale
  return (
    <g
      role="button"
      tabIndex={0}
      aria-pressed={chosen}
      className="cursor-pointer"
      onClick={onChoose}
      onKeyDown={(event) => {
        if (event.key === 'Enter' || event.key === ' ') onChoose()
      }}
    >
      {chosen && <rect x="6" y={y - 30} width={width - 16} height="60" fill="var(--slab)" />}
      <text x="16" y={y + 9} className="words" fontSize="28" fill="var(--chalk)">
        {crack.letter}
      </text>
      <path d={`M${x1} ${y - witness}H${x2}`} stroke="var(--ash)" strokeDasharray="6 4" />
      <path
        d={wander}
        fill="none"
        stroke="var(--chalk)"
        strokeWidth="2.8"
        strokeLinejoin="round"
        strokeDasharray={crack.length_mm == null ? '4 5' : undefined}
      />
      <End crack={crack} at={0} x={x1} y={y} out={-1} scale={scale} />
      <End crack={crack} at={1} x={x2} y={y} out={1} scale={scale} />
      <text x={middle} y={y + (short ? 44 : 24)} textAnchor="middle" fontSize="14" fill="var(--ash)">
        {crack.words}
      </text>
    </g>
  )
}

interface EndProps {
  crack: Schemas['CrackPlan']
  at: 0 | 1
  x: number
  y: number
  /** -1 at the left end, 1 at the right. */
  out: number
  scale: number
}

function End({ crack, at, x, y, out, scale }: EndProps): ReactNode {
  const end = crack.ends[at]
  if (end === undefined) return null
  const hole = end.stop_hole
  if (hole != null) {
    const [cx, r] = [x + out * hole.offset_mm * scale, (hole.drill_mm / 2) * scale]
    return (
      <g fill="none" stroke="var(--chalk)" strokeWidth="1.8">
        <circle cx={cx} cy={y} r={r} strokeDasharray={hole.find_tip_better ? '4 4' : undefined} />
        <path
          d={`M${cx - r - 7} ${y}h${2 * r + 14}M${cx} ${y - r - 7}v${2 * r + 14}`}
          stroke="var(--ash)"
          strokeWidth="1"
          strokeDasharray="9 3 2 3"
        />
      </g>
    )
  }
  switch (end.kind) {
    case 'edge':
      return (
        <path d={`M${x} ${y - 16}v32M${x + out * 6} ${y - 16}v32`} stroke="var(--chalk)" strokeWidth="2.2" />
      )
    case 'hole':
      return <circle cx={x + out * 14} cy={y} r={14} fill="none" stroke="var(--chalk)" strokeWidth="2.2" />
    case 'branch':
      return (
        <path
          d={`M${x - out * 4} ${y - 18}L${x + out * 4} ${y + 18}`}
          stroke="var(--chalk)"
          strokeWidth="2.8"
        />
      )
    case 'hidden':
      return (
        <path d={`M${x} ${y}h${out * 34}`} stroke="var(--chalk)" strokeWidth="2.8" strokeDasharray="2 5" />
      )
    default:
      return (
        <text x={x + out * 16} y={y + 6} textAnchor="middle" fontSize="19" fill="var(--chalk)">
          ?
        </text>
      )
  }
}
