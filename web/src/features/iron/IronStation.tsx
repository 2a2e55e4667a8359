import { useState, type ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { useJob } from '../../job/JobContext'
import { Choice } from '../../ui/Choice'
import { Plate } from '../../ui/Plate'
import { Evidence } from './Evidence'
import { HOW, PICTURES } from './pictures'

const SURE = [
  { id: 'sure', label: 'Sure' },
  { id: 'fair', label: 'Fairly' },
  { id: 'unsure', label: 'Unsure' },
]

/** Tests laid out like a tool roll; the outcome is chosen by what it looks like. */
export function IronStation(): ReactNode {
  const { view, say } = useJob()
  const [confidence, setConfidence] = useState<Schemas['Confidence']>('sure')
  const [spot, setSpot] = useState('first spot')
  const { iron } = view.plan
  const next = iron.next_tests[0]
  const standing = view.job.evidence.filter((seen) => seen.struck == null)
  const observe = (test: string, outcome: string) => {
    const before = standing.findLast((seen) => seen.test === test && seen.spot === spot)
    say({ kind: 'observe', test, outcome, confidence, spot: spot.trim() }, before?.revision ?? 0)
  }
  return (
    <div className="flex min-h-0 grow flex-col gap-3 overflow-auto">
      <div className="flex flex-wrap items-end gap-x-5 gap-y-2">
        <div>
          <span className="label mb-1 block">How sure?</span>
          <Choice
            label="How sure of what was seen"
            choices={SURE}
            chosen={confidence}
            onChoose={(id) => setConfidence(id === 'fair' || id === 'unsure' ? id : 'sure')}
          />
        </div>
        <label className="label">
          <span className="mb-1 block">Where on the part</span>
          <input
            value={spot}
            onChange={(event) => setSpot(event.target.value)}
            className="min-h-11 w-44 border-[1.5px] border-dim bg-raise px-3 text-[17px] font-semibold text-chalk"
          />
        </label>
        <p className="max-w-64 text-[14.5px] text-ash max-bench:max-w-none">
          The same test at the same spot replaces; at another spot it counts again, by half.
        </p>
        <div className="ml-auto">
          {view.standing.station === 'iron' && next !== undefined && (
            <Plate
              testId="next"
              onPress={() => document.getElementById(`roll-${next.test}`)?.querySelector('button')?.focus()}
            >
              {view.standing.next.verb}
            </Plate>
          )}
        </div>
      </div>
      <div className="grid grid-cols-4 border border-scribe bg-slab max-bench:grid-cols-1">
        {iron.roll.map((test) => (
          <Pocket
            key={test.test}
            test={test}
            next={!iron.enough && next?.test === test.test}
            chosen={standing.findLast((seen) => seen.test === test.test && seen.spot === spot)?.outcome ?? ''}
            answered={standing.some((seen) => seen.test === test.test)}
            onObserve={(outcome) => observe(test.test, outcome)}
          />
        ))}
      </div>
      <Evidence />
    </div>
  )
}

interface PocketProps {
  test: Schemas['TestView']
  next: boolean
  chosen: string
  answered: boolean
  onObserve: (outcome: string) => void
}

function Pocket({ test, next, chosen, answered, onObserve }: PocketProps): ReactNode {
  return (
    <section
      id={`roll-${test.test}`}
      aria-label={test.label}
      className={`border-scribe p-2.5 [&:not(:last-child)]:border-r [&:not(:last-child)]:border-dashed max-bench:border-b ${next ? 'bg-raise outline-2 outline-chalk' : ''}`}
    >
      <h2 className="flex items-baseline justify-between text-[26px] leading-7">
        {test.label}{' '}
        <span className="figure font-sans text-[15px] !font-[450] text-ash">{test.minutes} min</span>
      </h2>
      <p className="mb-2 min-h-[54px] text-[14px] leading-[18px] text-ash">{HOW[test.test]}</p>
      {test.outcomes.map((outcome) => (
        <button
          key={outcome.id}
          type="button"
          aria-pressed={chosen === outcome.id}
          aria-label={`${test.label}: ${outcome.looks}`}
          onClick={() => onObserve(outcome.id)}
          className={`flex min-h-[60px] w-full items-center gap-3 border-t border-rule px-1 text-left aria-pressed:outline-2 aria-pressed:-outline-offset-2 aria-pressed:outline-chalk ${answered && chosen !== outcome.id ? 'opacity-62' : ''}`}
        >
          <svg
            viewBox="0 0 60 48"
            width="60"
            height="46"
            fill="none"
            stroke="currentColor"
            strokeWidth="1.8"
            strokeLinecap="round"
            strokeLinejoin="round"
            aria-hidden
            className="shrink-0"
          >
            {PICTURES[`${test.test}.${outcome.id}`]}
          </svg>
          <span className="leading-[18px]">{outcome.looks}</span>
        </button>
      ))}
    </section>
  )
}
