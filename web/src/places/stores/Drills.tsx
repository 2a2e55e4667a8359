import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'

/** So many fit on the shelf beside each other. */
const MOST = 36

/** The set of drills: holes by size, and the set as it is typed. */
export function Drills({
  drills,
  children,
}: {
  drills: Schemas['StoresView']['drills']
  children: ReactNode
}): ReactNode {
  const shown = drills.slice(0, MOST)
  return (
    <section aria-label="Drills" className="flex flex-col gap-2">
      <h2 className="label !font-sans !font-normal">Drills</h2>
      {shown.length > 0 && (
        <div className="flex flex-wrap items-end border-b-[1.5px] border-scribe px-2">
          {shown.map(([mm, mark]) => (
            <span key={mm} className="flex flex-col items-center px-2 pb-1">
              <svg width={Math.max(14, mm * 3 + 4)} height={Math.max(14, mm * 3 + 4)} aria-hidden>
                <circle
                  cx="50%"
                  cy="50%"
                  r={Math.max(3, mm * 1.5)}
                  fill="none"
                  stroke="var(--chalk)"
                  strokeWidth="1.8"
                />
              </svg>
              <span className="small text-ash">{mark}</span>
            </span>
          ))}
          {drills.length > MOST && (
            <span className="px-2 pb-2 small text-ash">and {drills.length - MOST} more</span>
          )}
        </div>
      )}
      <div className="max-w-[560px]">{children}</div>
    </section>
  )
}
