import { useId, type ReactNode } from 'react'
import type { Live } from '../../api/client'
import { themeOf, useShop } from '../../job/ShopContext'
import { heatColour } from '../../quantity/heat-colour'

export interface WindowBarProps {
  live: Live
  low: number
  high: number
  /** Both as they are shown. */
  ends: readonly [string, string]
}

/** The window as a piece of rule: posts at both ends, an arrow where it stands, also outside. */
export function WindowBar({ live, low, high, ends }: WindowBarProps): ReactNode {
  const shop = useShop()
  const id = useId()
  const theme = themeOf(shop)
  const margin = (high - low) * 0.36
  const x = (value: number) => 20 + ((value - low + margin) / (high - low + 2 * margin)) * 460
  const at = Math.min(492, Math.max(8, x(live.celsius)))
  // So far out that the arrow would leave the rule: it points the way instead.
  const off = live.celsius < low - margin || live.celsius > high + margin
  const stops = Array.from({ length: 9 }, (_, step) => low + ((high - low) * step) / 8)
  return (
    <svg viewBox="0 0 500 74" className="w-full max-w-[330px]" aria-hidden>
      <defs>
        <linearGradient id={id}>
          {stops.map((value, step) => (
            <stop key={value} offset={step / 8} stopColor={heatColour(value, theme)} />
          ))}
        </linearGradient>
      </defs>
      <path d="M0 36H500" stroke="var(--dim)" />
      <rect x={x(low)} y="26" width={x(high) - x(low)} height="12" fill={`url(#${id})`} />
      <path d={`M${x(low)} 8V44M${x(high)} 8V44`} stroke="var(--chalk)" strokeWidth="3" />
      {off ? (
        <path
          d={live.place === 'too_cold' ? 'M2 22l18 -12v24z' : 'M498 22l-18 -12v24z'}
          fill="var(--chalk)"
        />
      ) : (
        <path
          d={`M${at - 12} 4h24l-12 20zM${at} 20V42`}
          fill="var(--chalk)"
          stroke="var(--chalk)"
          strokeWidth="2"
        />
      )}
      <g className="figure" fontSize="30" fill="var(--chalk)" textAnchor="middle">
        <text x={x(low)} y="69">
          {ends[0]}
        </text>
        <text x={x(high)} y="69">
          {ends[1]}
        </text>
      </g>
      <text x={(x(low) + x(high)) / 2} y="66" textAnchor="middle" fontSize="22" fill="var(--ash)">
        keep between
      </text>
    </svg>
  )
}
