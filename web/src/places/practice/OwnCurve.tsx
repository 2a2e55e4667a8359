import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { path } from '../../ui/pen'

const WIDE = 380
const HIGH = 120

/** One's own odds, case by case: full dots held, rings did not; the line is the mean of the last five. */
export function OwnCurve({ curve }: { curve: Schemas['Curve'] }): ReactNode {
  const { past, mean, words } = curve
  const step = (WIDE - 40) / Math.max(past.length - 1, 1)
  const x = (at: number) => 30 + at * step
  const y = (odds: number) => 8 + (1 - odds) * (HIGH - 16)
  return (
    <section aria-label="How it goes">
      <h2 className="words text-[28px] leading-9">How it goes</h2>
      {past.length > 0 && (
        <svg viewBox={`0 0 ${WIDE} ${HIGH}`} className="w-full max-w-[420px]" role="img" aria-label={words}>
          {[0, 50, 100].map((of100) => (
            <g key={of100}>
              <path
                d={`M30 ${y(of100 / 100)}H${WIDE - 10}`}
                stroke="var(--rule)"
                strokeWidth="1.5"
                strokeDasharray="9 6"
              />
              <text x="24" y={y(of100 / 100) + 5} textAnchor="end" fontSize="14" fill="var(--ash)">
                {of100}
              </text>
            </g>
          ))}
          <path
            d={path(mean.map((odds, at) => [x(at), y(odds)]))}
            fill="none"
            stroke="var(--ash)"
            strokeWidth="2"
          />
          {past.map((it, at) => (
            <circle
              // They have no name but their place.
              key={at}
              cx={x(at)}
              cy={y(it.odds)}
              r="5"
              fill={it.holds ? 'var(--chalk)' : 'var(--iron)'}
              stroke="var(--chalk)"
              strokeWidth="1.5"
            />
          ))}
        </svg>
      )}
      <p>{words}</p>
      {past.length > 0 && (
        <p className="small text-ash">Full: held. Ring: did not. Line: the mean of five.</p>
      )}
    </section>
  )
}
