import type { ReactNode } from 'react'
import type { Schemas } from '../api/client'

export interface PunchMarkProps {
  x: number
  y: number
  radius: number
  amount: Schemas['Amount']
}

export const AMOUNT_WORDS: Record<Schemas['Amount'], string> = {
  nothing: 'nothing yet',
  something: 'begun',
  enough: 'done',
}

/** A punch mark: empty, half or full, in a moat of the ground. Part of a drawing. */
export function PunchMark({ x, y, radius, amount }: PunchMarkProps): ReactNode {
  return (
    <g>
      <circle cx={x} cy={y} r={radius + 2.2} fill="var(--iron)" />
      {amount === 'enough' ? (
        <>
          <circle cx={x} cy={y} r={radius} fill="var(--chalk)" />
          <circle cx={x} cy={y} r={radius * 0.26} fill="var(--iron)" />
        </>
      ) : (
        <>
          <circle cx={x} cy={y} r={radius - 0.9} fill="var(--iron)" stroke="var(--chalk)" strokeWidth={1.8} />
          {amount === 'something' && (
            <path
              d={`M${x - radius + 0.9} ${y}A${radius - 0.9} ${radius - 0.9} 0 0 0 ${x + radius - 0.9} ${y}Z`}
              fill="var(--chalk)"
            />
          )}
        </>
      )}
    </g>
  )
}
