import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'

/** Something that went wrong at the torch: a stroke each time, in groups by what it was put down to. */
export function FaultLine({ line, onOpen }: { line: Schemas['FaultLine']; onOpen: () => void }): ReactNode {
  return (
    <button
      type="button"
      onClick={onOpen}
      className="grid min-h-12 w-full grid-cols-[320px_minmax(0,1fr)_minmax(0,240px)] items-center gap-x-6 border-b border-rule py-2 text-left max-bench:grid-cols-1"
    >
      <span className="font-semibold">{line.label}</span>
      <span className="flex flex-wrap gap-x-6 gap-y-1">
        {line.causes.map((cause) => (
          <span key={cause.words} className="flex items-center gap-2">
            <span className="flex gap-[3px]" aria-hidden="true">
              {Array.from({ length: Math.min(cause.times, STROKES_MOST) }, (_, at) => (
                <span
                  key={at}
                  className={`h-5 border-l-[3px] border-chalk ${at % 5 === 4 ? 'mr-1.5' : ''}`}
                />
              ))}
            </span>
            {cause.words}, {cause.times}
          </span>
        ))}
      </span>
      <span className="text-ash">{line.words}</span>
    </button>
  )
}

/** More are not told apart. */
const STROKES_MOST = 20
