import { useId, type ReactNode } from 'react'
import { GLOWS_C, heatColour, type Theme } from '../quantity/heat-colour'
import { HeatGradient } from './HeatGradient'
import { path } from './pen'

export interface HeatRecordProps {
  readings: readonly { minutes: number; celsius: number }[]
  x: (minutes: number) => number
  y: (celsius: number) => number
  width: number
  theme: Theme
  /** Of a round before: thinner, without its light. */
  earlier?: boolean
  /** Show the bead of now at its end. */
  now?: boolean
}

/** The measured line: one stroke in the colours of the iron, with a halo where it glowed. */
export function HeatRecord(props: HeatRecordProps): ReactNode {
  const { readings, x, y, width, theme, earlier = false, now = false } = props
  const id = useId()
  const last = readings.at(-1)
  if (last === undefined) return null
  const stroke = earlier ? width * 0.6 : width
  const points = readings.map((r) => [x(r.minutes), y(r.celsius)] as const)
  const glowing = readings
    .filter((r) => r.celsius >= GLOWS_C)
    .map((r) => [x(r.minutes), y(r.celsius)] as const)
  return (
    <g fill="none" strokeLinejoin="round" strokeLinecap="round">
      <defs>
        <HeatGradient id={`${id}-heat`} theme={theme} y={y} />
        <filter id={`${id}-halo`} x="-20%" y="-60%" width="140%" height="220%">
          <feGaussianBlur stdDeviation={width * 1.1} />
        </filter>
      </defs>
      {!earlier && glowing.length > 1 && (
        <path
          d={path(glowing)}
          stroke={`url(#${id}-heat)`}
          strokeWidth={width * 2.4}
          filter={`url(#${id}-halo)`}
          opacity={0.85}
        />
      )}
      <path d={path(points)} stroke={`url(#${id}-heat)`} strokeWidth={stroke} />
      {now && (
        <circle
          cx={x(last.minutes)}
          cy={y(last.celsius)}
          r={8}
          fill={heatColour(last.celsius, theme)}
          stroke="var(--chalk)"
          strokeWidth={2}
        />
      )}
    </g>
  )
}
