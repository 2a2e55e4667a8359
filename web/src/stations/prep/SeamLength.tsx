import { useRef, type KeyboardEvent, type PointerEvent, type ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { useWidth } from '../../ui/useWidth'

export interface SeamLengthProps {
  seam: Schemas['SeamPlan']
  /** Which of its sections is looked at. */
  at: number
  onLook: (at: number) => void
}

const HEIGHT = 118
const TOP = 26
const [LEFT, RIGHT] = [14, 14]

/** The seam along its length: the wall, how deep it is ground, and the depths that were read. */
export function SeamLength({ seam, at, onLook }: SeamLengthProps): ReactNode {
  const [frame, width] = useWidth<SVGSVGElement>(520, 280)
  const pressed = useRef(false)
  const { cuts } = seam
  const cut = cuts[at] ?? cuts[0]
  if (cut === undefined) return null
  const thickest = Math.max(...cuts.map((it) => it.wall_mm))
  const across = (width - LEFT - RIGHT) / seam.length_mm
  const down = Math.min((HEIGHT - TOP - 14) / thickest, 4)
  const x = (mm: number) => LEFT + mm * across
  const y = (mm: number) => TOP + mm * down
  const along = (of: (it: Schemas['SeamCut']) => number): string =>
    cuts.length === 1
      ? `${x(0)} ${y(of(cut))}L${x(seam.length_mm)} ${y(of(cut))}`
      : cuts.map((it) => `${x(it.at_mm)} ${y(of(it))}`).join('L')
  const look = (event: PointerEvent<SVGSVGElement>) => {
    const box = event.currentTarget.getBoundingClientRect()
    const mm = ((event.clientX - box.left) * (width / box.width) - LEFT) / across
    onLook(nearestCut(cuts, mm))
  }
  const handleKey = (event: KeyboardEvent) => {
    const to = { ArrowLeft: at - 1, ArrowRight: at + 1, Home: 0, End: cuts.length - 1 }[event.key]
    if (to === undefined) return
    event.preventDefault()
    onLook(Math.max(0, Math.min(cuts.length - 1, to)))
  }
  return (
    <svg
      ref={frame}
      viewBox={`0 0 ${width} ${HEIGHT}`}
      className="w-full touch-pan-y outline-offset-[-3px]"
      role="slider"
      tabIndex={0}
      aria-label={`Along crack ${seam.letter}`}
      aria-valuemin={0}
      aria-valuemax={cuts.length - 1}
      aria-valuenow={at}
      aria-valuetext={`${cut.at_words}, wall ${cut.wall_words}`}
      data-seam-length
      onKeyDown={handleKey}
      onPointerDown={(event) => {
        pressed.current = true
        look(event)
      }}
      onPointerMove={(event) => pressed.current && look(event)}
      onPointerUp={() => (pressed.current = false)}
      onPointerCancel={() => (pressed.current = false)}
      onPointerLeave={() => (pressed.current = false)}
    >
      <path
        d={`M${x(0)} ${y(0)}L${along((it) => it.wall_mm)}L${x(seam.length_mm)} ${y(0)}Z`}
        fill="url(#hatch)"
        stroke="var(--chalk)"
        strokeWidth="1.6"
      />
      <path
        d={`M${x(0)} ${y(0)}L${along((it) => it.depth_mm)}L${x(seam.length_mm)} ${y(0)}Z`}
        fill="var(--iron)"
        stroke="var(--chalk)"
        strokeWidth="1.6"
      />
      {seam.read.map((read) => (
        <g key={read.id}>
          <path d={`M${x(read.at_mm)} ${y(0)}V${y(read.depth_mm)}`} stroke="var(--chalk)" strokeWidth="2.8" />
          {read.says === 'go_on' ? (
            <circle
              cx={x(read.at_mm)}
              cy={y(read.depth_mm)}
              r="5"
              fill="var(--iron)"
              stroke="var(--chalk)"
              strokeWidth="2"
            />
          ) : (
            <path d={`M${x(read.at_mm) - 7} ${y(read.depth_mm)}h14`} stroke="var(--chalk)" strokeWidth="4" />
          )}
        </g>
      ))}
      <path
        d={`M${x(cut.at_mm)} ${TOP - 6}V${y(cut.wall_mm) + 6}`}
        stroke="var(--chalk)"
        strokeWidth="1.4"
        strokeDasharray="3 3"
      />
      <text
        x={Math.max(46, Math.min(width - 46, x(cut.at_mm)))}
        y="14"
        textAnchor="middle"
        fontSize="14"
        fill="var(--chalk)"
        className="figure"
      >
        {cuts.length > 1 ? cut.at_words : 'the same all along'}
      </text>
    </svg>
  )
}

function nearestCut(cuts: readonly Schemas['SeamCut'][], mm: number): number {
  let best = 0
  cuts.forEach((cut, index) => {
    const known = cuts[best]
    if (known !== undefined && Math.abs(cut.at_mm - mm) < Math.abs(known.at_mm - mm)) best = index
  })
  return best
}
