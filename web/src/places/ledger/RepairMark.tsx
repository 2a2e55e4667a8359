import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'

/** A punch mark: full holds, half with a fault, struck failed, a ring where nobody was asked. */
export function RepairMark({ became }: { became: Schemas['Became'] }): ReactNode {
  return (
    <svg
      width="17"
      height="17"
      viewBox="0 0 17 17"
      aria-hidden="true"
      className="shrink-0 fill-none stroke-current"
    >
      {became === 'holds' && <circle cx="8.5" cy="8.5" r="4" strokeWidth="5" />}
      {became === 'fault' && (
        <>
          <circle cx="8.5" cy="8.5" r="5.5" strokeWidth="1.75" />
          <path d="M8.5 3a5.5 5.5 0 0 0 0 11z" className="fill-current" />
        </>
      )}
      {became === 'failed' && (
        <>
          <circle cx="8.5" cy="8.5" r="5" strokeWidth="1.75" />
          <path d="M3 14.5L14 2.5" strokeWidth="1.75" />
        </>
      )}
      {became === 'unknown' && <circle cx="8.5" cy="8.5" r="5.5" strokeWidth="1.5" className="text-ash" />}
    </svg>
  )
}
