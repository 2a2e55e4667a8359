import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { useWidth } from '../../ui/useWidth'
import { pinRow } from './pin-row'

export interface PinRowProps {
  seam: Schemas['SeamPlan']
}

/** The row of pins over the crack, to scale, each with its place in the order. */
export function PinRow({ seam }: PinRowProps): ReactNode {
  const [frame, width] = useWidth<SVGSVGElement>(560, 280)
  const WIDTH = Math.min(width, 700)
  const { radius: r, crack, pins } = pinRow(seam, WIDTH)
  const y = 60
  const places = new Map(seam.pin_order.map((pin, at) => [pin, at + 1]))
  return (
    <svg
      ref={frame}
      viewBox={`0 0 ${WIDTH} 130`}
      className="w-full"
      role="img"
      aria-label={`Pins along crack ${seam.letter}`}
    >
      <path d={`M${crack[0]} ${y}H${crack[1]}`} stroke="var(--chalk)" strokeWidth="2.8" />
      {pins.map((x, at) => {
        const first = (at + 1) % 2 === 1
        return (
          <g key={at}>
            <circle
              cx={x}
              cy={y}
              r={r}
              fill={first ? 'var(--raise)' : 'none'}
              stroke="var(--chalk)"
              strokeWidth="1.8"
            />
            {r > 7 && (
              <text
                x={x}
                y={y + (first ? -r - 8 : r + 20)}
                textAnchor="middle"
                fontSize="14"
                fill="var(--ash)"
                className="figure"
              >
                {places.get(at + 1)}
              </text>
            )}
          </g>
        )
      })}
    </svg>
  )
}
