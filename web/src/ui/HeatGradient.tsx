import type { ReactNode } from 'react'
import { HEAT_STOPS, heatColour, type Theme } from '../quantity/heat-colour'

export interface HeatGradientProps {
  id: string
  theme: Theme
  y: (celsius: number) => number
}

/** The colour of iron by its height on a chart: one gradient in user space, no segments. */
export function HeatGradient({ id, theme, y }: HeatGradientProps): ReactNode {
  const [cold, hot] = [y(20), y(1000)]
  return (
    <linearGradient id={id} gradientUnits="userSpaceOnUse" x1={0} x2={0} y1={cold} y2={hot}>
      {HEAT_STOPS.map((stop) => (
        <stop
          key={stop.celsius}
          offset={(y(stop.celsius) - cold) / (hot - cold)}
          stopColor={heatColour(stop.celsius, theme)}
        />
      ))}
    </linearGradient>
  )
}
