import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { Fig } from '../../job/Fig'
import { useJob } from '../../job/JobContext'

const WIDTH = 150
const HEIGHT = 150

/** How the six irons moved with each observation: lines, with names and shares at their ends. */
export function Belief(): ReactNode {
  const { view } = useJob()
  const { iron } = view.plan
  const steps = iron.steps.length
  const next = iron.next_tests[0]
  return (
    <section aria-label="What it may be">
      <h2 className="text-[26px] leading-7">
        {iron.enough
          ? `${iron.shares[0]?.label}: enough, go on`
          : next === undefined
            ? 'No test on the roll tells more'
            : `Next: ${next.verb.toLowerCase()}`}
      </h2>
      <p className="mb-2 text-ash">
        {iron.enough || next === undefined
          ? iron.meaning
          : `${next.gain_bits.toFixed(2)} bits for ${next.minutes} min.${next.mark === '' ? ' Leaves no mark.' : ` Leaves ${next.mark}.`}`}
      </p>
      <div className="flex gap-3">
        <svg
          viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
          width={WIDTH}
          height={HEIGHT}
          aria-hidden
          className="shrink-0"
        >
          {Array.from({ length: steps + 1 }, (_, at) => (
            <path key={at} d={`M${x(at, steps)} 6V${HEIGHT - 6}`} stroke="var(--rule)" />
          ))}
          {iron.shares.map((share, at) => (
            <IronLine key={share.iron} share={share} steps={steps} leading={at === 0} row={at} />
          ))}
        </svg>
        <ul className="grow">
          {iron.shares.map((share, at) => (
            <li
              key={share.iron}
              className={`flex h-[25px] items-center justify-between gap-3 ${share.plausible ? 'border-r-[2px] border-chalk pr-2 font-semibold' : 'pr-2.5 text-ash'}`}
            >
              <span className={at === 0 ? 'text-[17px]' : ''}>{share.label}</span>
              {at === 0 ? (
                <Fig id="iron.sure" side="top" />
              ) : (
                <span className="figure text-[17px]">{share.shown.number} %</span>
              )}
            </li>
          ))}
        </ul>
      </div>
      <p className="mt-1 text-[14px] text-ash">
        {steps === 0
          ? 'Before any test, by the sort of part.'
          : `From the sort of part to: ${iron.steps.at(-1)?.toLowerCase()}.`}{' '}
        The plan suits every bracketed iron.
      </p>
      {iron.notices.map((notice) => (
        <p key={notice} role="status" className="mt-2 border-l-[3px] border-chalk pl-3">
          {notice}
        </p>
      ))}
    </section>
  )
}

const x = (step: number, steps: number): number => 6 + (step * (WIDTH - 44)) / Math.max(steps, 1)
/** Square root, so that small shares still part. */
const y = (share: number): number => HEIGHT - 8 - (HEIGHT - 16) * Math.sqrt(share)

interface IronLineProps {
  share: Schemas['Share']
  steps: number
  leading: boolean
  row: number
}

function IronLine({ share, steps, leading, row }: IronLineProps): ReactNode {
  const points = share.history.map((value, at) => [x(at, steps), y(value)] as const)
  const last = points.at(-1) ?? [0, 0]
  const weight = leading ? 2.8 : share.plausible ? 2 : 1.2
  const stroke = leading || share.plausible ? 'var(--chalk)' : 'var(--dim)'
  return (
    <g stroke={stroke} fill="none">
      <path
        d={points.map(([px, py], at) => `${at === 0 ? 'M' : 'L'}${px} ${py}`).join('')}
        strokeWidth={weight}
      />
      <path d={`M${last[0] + 5} ${last[1]}L${WIDTH - 26} ${row * 25 + 12}H${WIDTH}`} stroke="var(--scribe)" />
      {points.map(([px, py]) => (
        <circle key={px} cx={px} cy={py} r={leading ? 4 : 3} fill={stroke} stroke="none" />
      ))}
    </g>
  )
}
