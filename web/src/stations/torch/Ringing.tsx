import type { ReactNode } from 'react'
import { Button } from '../../ui/Button'
import type { Rings } from './useRings'

/** What rang: said until somebody has seen it. */
export function Rang({ rings }: { rings: Rings }): ReactNode {
  return (
    <p
      role="alert"
      data-testid="torch-rings"
      className="flex items-center gap-3 border-2 border-chalk px-3 py-2 text-[19px] font-semibold"
    >
      <svg viewBox="0 0 24 24" className="size-6" aria-hidden>
        <path
          d="M12 3a6 6 0 0 1 6 6v5l2 3H4l2-3V9a6 6 0 0 1 6-6zM9.5 20h5"
          fill="none"
          stroke="var(--chalk)"
          strokeWidth="2"
        />
      </svg>
      <span className="first-letter:uppercase">{rings.said}</span>
      <Button onPress={rings.seen}>Heard</Button>
    </p>
  )
}

/** It is muted for this heat, never for good; and says where the browser lets nothing be heard yet. */
export function Mute({ rings }: { rings: Rings }): ReactNode {
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
      <Button chosen={rings.muted} onPress={() => rings.mute(!rings.muted)}>
        {rings.muted ? 'Muted for this heat' : 'Mute for this heat'}
      </Button>
      {!rings.audible && !rings.muted && (
        <span className="text-ash">No sound until this page is pressed once.</span>
      )}
    </div>
  )
}
