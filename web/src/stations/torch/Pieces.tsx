import type { ReactNode } from 'react'

export interface PiecesProps {
  piece: string
  done: number
  planned: number
  waiting: number
}

/** The beads or pins as a row: laid, the one of now, those to come. */
export function Pieces({ piece, done, planned, waiting }: PiecesProps): ReactNode {
  const span = 12
  const from = Math.max(0, Math.min(done - 4, planned - span))
  const cells = Array.from({ length: Math.min(span, Math.max(planned, 1)) }, (_, at) => from + at)
  const now = Math.min(done + 1, planned)
  return (
    <div>
      <p className="flex items-baseline gap-3">
        <span className="words text-[36px] leading-9 first-letter:uppercase" data-testid="torch-piece">
          {done >= planned ? `All ${piece}s done` : `${piece} ${now}`}
        </span>
        <span className="text-ash">
          {done} of {planned} done{waiting > 0 ? `, ${waiting} waiting for the server` : ''}
        </span>
      </p>
      <svg viewBox="0 0 500 40" className="mt-1 w-full max-w-[560px]" aria-hidden>
        {cells.map((cell, at) => {
          const x = 2 + at * 41.5
          const laid = cell < done
          const here = cell === done
          return (
            <g
              key={cell}
              fill="none"
              stroke={laid || here ? 'var(--chalk)' : 'var(--scribe)'}
              strokeWidth={here ? 3 : 1.5}
            >
              <rect x={x} y={here ? 3 : 8} width="38" height={here ? 34 : 24} />
              {laid && <path d={`M${x + 6} 12q6 8 0 16m8 -16q6 8 0 16m8 -16q6 8 0 16m8 -16q6 8 0 16`} />}
              {here && <path d={`M${x + 30} 20H${x + 9}m8 -7l-8 7 8 7`} />}
            </g>
          )
        })}
      </svg>
    </div>
  )
}
