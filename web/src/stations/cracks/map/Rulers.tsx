import type { ReactNode } from 'react'
import type { UnitSystem } from '../../../api/client'
import { atTheMark } from '../../../quantity/ruler'
import type { View } from './view'

export interface RulersProps {
  view: View
  width: number
  height: number
  units: UnitSystem
}

/** What the rulers take of the sheet, in pixels. */
export const RULER = { left: 34, top: 22 } as const

/** Least pixels between two numbers. */
const APART = 62

/** A step a tape has: 1, 2 or 5 of something, or an inch and its halves. */
function stepOf(scale: number, units: UnitSystem): { mm: number; parts: number } {
  const steps =
    units === 'imperial'
      ? [6.35, 12.7, 25.4, 50.8, 152.4, 304.8, 609.6, 1524]
      : [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000]
  const mm = steps.find((step) => step * scale >= APART) ?? 5000
  return { mm, parts: units === 'imperial' ? 4 : 5 }
}

/** Rules along the upper and the left edge, in the units of the shop. */
export function Rulers({ view, width, height, units }: RulersProps): ReactNode {
  const { mm, parts } = stepOf(view.scale, units)
  const small = mm / parts
  const ticks = (from: number, long: number) => {
    const first = Math.ceil(-from / view.scale / small)
    const last = Math.floor((long - from) / view.scale / small)
    return Array.from({ length: Math.max(0, last - first + 1) }, (_, index) => first + index)
  }
  const word = (tick: number) => atTheMark(tick * small, units)
  const unit = units === 'imperial' ? ' in' : ' mm'
  return (
    <g stroke="var(--dim)" fontSize="14" pointerEvents="none" aria-hidden>
      <rect
        x="0"
        y="0"
        width={width}
        height={RULER.top}
        fill="var(--iron)"
        fillOpacity="0.82"
        stroke="none"
      />
      <rect
        x="0"
        y="22"
        width="34"
        height={height - 22}
        fill="var(--iron)"
        fillOpacity="0.82"
        stroke="none"
      />
      {ticks(view.x, width).map((tick) => {
        const x = view.x + tick * small * view.scale
        const named = tick % parts === 0
        return x < RULER.left ? null : (
          <g key={tick}>
            <path d={`M${x} 0v${named ? 11 : 6}`} />
            {named && (
              <text x={x + 4} y="17" fill="var(--ash)" stroke="none">
                {word(tick)}
                {tick === 0 ? unit : ''}
              </text>
            )}
          </g>
        )
      })}
      {ticks(view.y, height).map((tick) => {
        const y = view.y + tick * small * view.scale
        const named = tick % parts === 0
        return y < 24 ? null : (
          <g key={tick}>
            <path d={`M0 ${y}h${named ? 11 : 6}`} />
            {named && (
              <text x="2" y={y + 15} fill="var(--ash)" stroke="none">
                {word(tick)}
              </text>
            )}
          </g>
        )
      })}
    </g>
  )
}
