import type { ReactNode } from 'react'
import type { Schemas } from '../api/client'

const ROW = 20
const EDGE = 10

const SHORT: Record<string, string> = { before: 'before', tacked: 'tacked', cold: 'cold', after: 'finished' }

/** Readings of one size, the first on top, beside what it may be. */
export function SizeStrip({ size }: { size: Schemas['SizePlan'] }): ReactNode {
  const { strip, readings } = size
  if (strip == null) return null
  const [low, high] = strip.good ?? []
  const height = ROW * readings.length + 2 * EDGE
  const at = (share: number): string => `${String(share * 100)}%`
  return (
    <figure className="flex flex-col gap-0.5">
      <svg
        width="100%"
        height={height}
        role="img"
        aria-label={`${size.name}: ${readings.map((it) => `${it.label} ${it.words}`).join(', ')}`}
      >
        {low !== undefined && high !== undefined && (
          <rect x={at(low)} width={at(high - low)} y={2} height={height - 4} className="fill-rule" />
        )}
        {strip.should != null && (
          <line
            x1={at(strip.should)}
            x2={at(strip.should)}
            y1={2}
            y2={height - 2}
            className="stroke-scribe"
            strokeWidth={2}
          />
        )}
        {readings.map((it, index) => {
          const share = strip.at[index]
          const y = EDGE + ROW * (index + 0.5)
          const next = strip.at[index + 1]
          if (share === undefined) return null
          return (
            <g key={it.when} className="stroke-chalk">
              {next !== undefined && (
                <line x1={at(share)} y1={y} x2={at(next)} y2={y + ROW} strokeWidth={1.5} />
              )}
              <circle cx={at(share)} cy={y} r={4.5} strokeWidth={2} className="fill-slab" />
              <text
                x={at(share)}
                y={y + 5}
                dx={share < 0.5 ? -12 : 12}
                textAnchor={share < 0.5 ? 'end' : 'start'}
                className="small fill-chalk stroke-none"
              >
                {SHORT[it.when]}
              </text>
            </g>
          )
        })}
      </svg>
      <figcaption>
        <ol className="flex flex-wrap gap-x-4">
          {readings.map((it) => (
            <li key={it.when}>
              <span className="text-ash first-letter:uppercase">{it.label}</span> {it.words}
              {it.moved !== '' && <span className="text-ash"> ({it.moved})</span>}
            </li>
          ))}
          {strip.should_words !== '' && (
            <li>
              <span className="text-ash">Should be</span> {strip.should_words}
            </li>
          )}
        </ol>
      </figcaption>
    </figure>
  )
}
