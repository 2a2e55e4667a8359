import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { useWidth } from '../../ui/useWidth'
import { ringed } from './ringed'

export interface PatchRingProps {
  seam: Schemas['SeamPlan']
  patch: Schemas['PatchSeam']
}

/** Room for it, and how small a pin may be drawn before its number goes. */
const HIGH = 230
const NUMBERED_PX = 8

/** The pins round a patch, to scale, each with its turn; the anchors first. */
export function PatchRing({ seam, patch }: PatchRingProps): ReactNode {
  const [frame, width] = useWidth<SVGSVGElement>(560, 280)
  const wide = Math.min(width, 700)
  const { lines, pins, radius } = ringed(patch, seam.pin_mm, wide, HIGH)
  const turns = new Map(seam.pin_order.map((pin, at) => [pin, at + 1]))
  const turnOf = (at: number): number => turns.get(at + 1) ?? 0
  return (
    <svg
      ref={frame}
      viewBox={`0 0 ${wide} ${HIGH}`}
      className="w-full"
      role="img"
      aria-label={`Pins round ${seam.letter}`}
    >
      {lines.map((line, at) => (
        <path key={at} d={line} fill="none" stroke="var(--dim)" strokeWidth="2" />
      ))}
      {pins.map(({ x, y }, at) => (
        <circle
          key={at}
          cx={x}
          cy={y}
          r={radius}
          fill={turnOf(at) <= patch.first ? 'var(--raise)' : 'none'}
          stroke={turnOf(at) <= patch.first ? 'var(--chalk)' : 'var(--ash)'}
          strokeWidth={turnOf(at) <= patch.first ? 2.4 : 1.2}
        />
      ))}
      {radius > NUMBERED_PX &&
        pins.map(({ x, y }, at) => (
          <text
            key={at}
            x={x}
            y={y + 5}
            textAnchor="middle"
            fontSize="15"
            fill="var(--chalk)"
            stroke="var(--iron)"
            strokeWidth="4"
            paintOrder="stroke"
            className="figure"
          >
            {turnOf(at)}
          </text>
        ))}
    </svg>
  )
}
