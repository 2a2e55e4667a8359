import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { useWidth } from '../../ui/useWidth'
import { laidSteps, stepWords } from './hours-strip'

const HIGH = 44
const BAR = 16

/** The steps of a way one after the other: full what hands do, hollow what the clock does. */
export function HoursStrip({ steps }: { steps: readonly Schemas['StepOpened'][] }): ReactNode {
  const [box, width] = useWidth<HTMLElement>(240, 200)
  if (steps.length === 0) return null
  const laid = laidSteps(steps, width)
  return (
    <figure className="m-0" ref={box}>
      <svg
        viewBox={`0 0 ${width} ${HIGH}`}
        className="w-full"
        role="img"
        aria-label={`Steps: ${steps.map((step) => `${step.label} ${stepWords(step)}`).join(', ')}`}
      >
        {laid.map(({ step, x, hands, clock, word }) => (
          <g key={`${step.id} ${x}`}>
            <rect x={x} y="2" width={Math.max(hands, 0)} height={BAR} fill="var(--chalk)" />
            <rect
              x={x + hands + 0.75}
              y="2.75"
              width={Math.max(clock - 1.5, 0)}
              height={BAR - 1.5}
              fill="none"
              stroke="var(--scribe)"
              strokeWidth="1.5"
            />
            <path d={`M${x} ${BAR + 2}v5`} stroke="var(--dim)" />
            {word !== '' && (
              <text x={x + 2} y={BAR + 22} fill="var(--ash)" fontSize="14">
                {word}
              </text>
            )}
          </g>
        ))}
      </svg>
      <details>
        <summary className="flex min-h-11 cursor-pointer items-center border-b border-dotted border-dim">
          Step by step
        </summary>
        <ol className="grid grid-cols-[repeat(auto-fill,minmax(240px,1fr))] gap-x-6 py-1">
          {steps.map((step, at) => (
            <li key={`${step.id} ${at}`} className="flex justify-between gap-3 border-b border-rule">
              <span>{step.label}</span>
              <span className="figure">{stepWords(step)}</span>
            </li>
          ))}
        </ol>
      </details>
    </figure>
  )
}
