import type { ReactNode } from 'react'
import type { Held } from './held'
import type { Chosen } from './near'
import type { At } from './view'

export interface HandlesProps {
  /** Of what is chosen. */
  points: readonly At[]
  chosen: Chosen | null
  held: Held | null
  /** What was pressed so far of what is being drawn. */
  drawing: readonly At[] | null
  scale: number
}

/** Points that can be taken hold of, and those that were just pressed. */
export function Handles({ points, chosen, held, drawing, scale }: HandlesProps): ReactNode {
  return (
    <>
      {points.map((place, index) => {
        const there = held?.point === index && held.crack === chosen?.id ? held.to : place
        const big = chosen?.point === index
        return (
          <circle
            key={index}
            data-point={index}
            cx={there.x_mm * scale}
            cy={there.y_mm * scale}
            r={big ? 8 : 4.5}
            fill={big ? 'var(--chalk)' : 'var(--iron)'}
            stroke={big ? 'var(--iron)' : 'var(--chalk)'}
            strokeWidth="2"
          />
        )
      })}
      {drawing?.map((place, index) => (
        <circle
          key={index}
          cx={place.x_mm * scale}
          cy={place.y_mm * scale}
          r="5"
          fill="var(--chalk)"
          stroke="var(--iron)"
          strokeWidth="2"
        />
      ))}
    </>
  )
}
