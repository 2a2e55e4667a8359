import type { ReactNode } from 'react'
import type { Iron, Schemas } from '../../api/client'
import { Fig } from '../../job/Fig'
import { useJob } from '../../job/JobContext'

const WIDTH = 160
const ROW = 27
const HEIGHT = ROW * 6

/** How the six irons moved with each observation: lines, with names and shares at their ends. */
export function Belief(): ReactNode {
  const { view, asIf, seeAsIf } = useJob()
  const { iron } = view.plan
  const steps = iron.steps.length
  return (
    <section aria-label="What it may be">
      <h2 className="label !font-sans !font-[450]">How the iron moved</h2>
      <div className="mt-1.5 flex gap-2.5">
        <svg
          viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
          width={WIDTH}
          height={HEIGHT}
          aria-hidden
          className="shrink-0"
        >
          {Array.from({ length: steps + 1 }, (_, at) => (
            <path key={at} d={`M${x(at, steps)} 4V${HEIGHT - 4}`} stroke="var(--rule)" />
          ))}
          {iron.shares.map((share, at) => (
            <IronLine key={share.iron} share={share} steps={steps} leading={at === 0} row={at} />
          ))}
        </svg>
        <ul className="min-w-0 grow">
          {iron.shares.map((share, at) => (
            <li
              key={share.iron}
              style={{ height: ROW }}
              className={`flex items-center justify-between gap-2 ${share.plausible ? 'border-r-[2px] border-chalk pr-2 font-semibold' : 'pr-2.5 text-ash'}`}
            >
              <span className={at === 0 ? 'text-[17px]' : ''}>{share.label}</span>
              <span className="flex items-baseline gap-1.5 whitespace-nowrap">
                {share.was !== '' && share.plausible && (
                  <s className="figure small !font-[450] text-ash">{share.was.replace(' %', '')}</s>
                )}
                {at === 0 ? (
                  <Fig id="iron.sure" side="top" />
                ) : (
                  <span className="figure text-[17px]">{share.shown.number} %</span>
                )}
              </span>
            </li>
          ))}
        </ul>
      </div>
      <p className="mt-1 small leading-[18px] text-ash">{stepWords(iron)}</p>
      {(iron.plausible.length > 1 || asIf !== null) && (
        <AsIf plausible={iron.plausible} shares={iron.shares} asIf={asIf} onChoose={seeAsIf} />
      )}
    </section>
  )
}

function stepWords(iron: Schemas['IronPlan']): string {
  const suits = iron.plausible.length > 1 ? ' The plan suits each of the irons it may still be.' : ''
  if (iron.steps.length === 0) return `Before any test, by the sort of part.${suits}`
  return `Part, ${iron.steps.map((step) => step.test.toLowerCase()).join(', ')}.${suits}`
}

interface AsIfProps {
  plausible: readonly Iron[]
  shares: readonly Schemas['Share'][]
  asIf: Iron | null
  onChoose: (iron: Iron | null) => void
}

/** The plan for all that it may be, or as if it were one of them. */
function AsIf({ plausible, shares, asIf, onChoose }: AsIfProps): ReactNode {
  const label = (iron: Iron) => shares.find((share) => share.iron === iron)?.label ?? iron
  const choice = (iron: Iron | null, words: string) => (
    <button
      key={words}
      type="button"
      aria-pressed={asIf === iron}
      onClick={() => onChoose(iron)}
      className="min-h-11 grow border-[1.5px] border-scribe px-2 text-ash aria-pressed:border-chalk aria-pressed:bg-raise aria-pressed:font-semibold aria-pressed:text-chalk"
    >
      {words}
    </button>
  )
  return (
    <div role="group" aria-label="The plan as if it were" className="mt-2">
      <p className="label mb-1">The plan as if it were</p>
      <div className="flex flex-wrap gap-1">
        {choice(null, plausible.length > 1 ? `any of ${plausible.length}` : 'what it is')}
        {plausible.slice(0, 3).map((iron) => choice(iron, label(iron)))}
      </div>
    </div>
  )
}

const x = (step: number, steps: number): number => 6 + (step * (WIDTH - 46)) / Math.max(steps, 1)
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
      <path
        d={`M${last[0] + 5} ${last[1]}L${WIDTH - 24} ${row * ROW + ROW / 2}H${WIDTH}`}
        stroke="var(--scribe)"
      />
      {points.map(([px, py]) => (
        <circle key={px} cx={px} cy={py} r={leading ? 4 : 3} fill={stroke} stroke="none" />
      ))}
    </g>
  )
}
