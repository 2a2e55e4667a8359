import type { ReactNode } from 'react'

export interface Told {
  sentence: string
  beneath: string
}

/** What is said of the flame where it is; `before` holds the room it had, so that no picture moves under the finger. */
export function FaceTold({ told, before }: { told: Told; before: Told | null }): ReactNode {
  return (
    <div className="grid">
      {before !== null && (
        <div className="invisible [grid-area:1/1]" aria-hidden>
          <h3 className="text-[24px] leading-7">{before.sentence}</h3>
          <p>{before.beneath}</p>
        </div>
      )}
      <div className="[grid-area:1/1]">
        <h3 className="text-[24px] leading-7" data-testid="face-sentence">
          {told.sentence}
        </h3>
        <p className="min-h-[1lh] text-ash">{told.beneath}</p>
      </div>
    </div>
  )
}
