import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'

const SIZE = 300
const LEFT = 40
const at = (p: number): number => LEFT + p * (SIZE - LEFT - 24)
const up = (p: number): number => SIZE - 30 - p * (SIZE - 56)

/** What was given against what held: on the dashed line the odds are honest. */
export function HonestChart({ honest }: { honest: Schemas['Honest'] }): ReactNode {
  return (
    <section
      aria-label="How honest the odds were"
      className="mt-6 flex flex-wrap items-start gap-8 border-t border-scribe pt-3"
    >
      <div className="max-w-[420px] grow">
        <h2 className="words text-[28px] leading-9">How honest the odds were</h2>
        <p className="mt-1">{honest.words}</p>
        <p className="mt-2 text-ash">
          Each mark is a tenth of the odds given; its bar is what that many repairs can tell. On the dashed
          line they hold as often as was said.
        </p>
      </div>
      <svg
        viewBox={`0 0 ${SIZE} ${SIZE}`}
        width={SIZE}
        height={SIZE}
        className="max-w-full fill-none stroke-current"
        role="img"
        aria-label="Odds given against the share that held"
      >
        <path d={`M${at(0)} ${up(0)}V${up(1)}M${at(0)} ${up(0)}H${at(1)}`} className="text-scribe" />
        <path d={`M${at(0)} ${up(0)}L${at(1)} ${up(1)}`} className="text-dim" strokeDasharray="3 5" />
        {[0, 50, 100].map((of100) => (
          <g key={of100} fontSize="14" className="fill-ash stroke-none">
            <text x={at(of100 / 100)} y={SIZE - 10} textAnchor="middle">
              {of100}
            </text>
            <text x={LEFT - 8} y={up(of100 / 100) + 5} textAnchor="end">
              {of100}
            </text>
          </g>
        ))}
        <text
          x={(at(0) + at(1)) / 2}
          y={SIZE - 10}
          fontSize="14"
          textAnchor="middle"
          dx="46"
          className="fill-ash stroke-none"
        >
          given
        </text>
        {honest.tenths.map((tenth) => (
          <g key={tenth.mean_p}>
            <path
              d={`M${at(tenth.mean_p)} ${up(tenth.low)}V${up(tenth.high)}`}
              strokeWidth="2"
              className="text-ash"
            />
            <circle cx={at(tenth.mean_p)} cy={up(tenth.share)} r="5" strokeWidth="4" className="fill-iron" />
            <text
              x={at(tenth.mean_p)}
              y={up(tenth.high) - 5}
              fontSize="14"
              textAnchor="middle"
              className="fill-current stroke-none"
            >
              {tenth.n}
            </text>
          </g>
        ))}
      </svg>
    </section>
  )
}
