import { useEffect, useState, type ReactNode } from 'react'
import type { Problem, Schemas, UnitSystem } from '../../api/client'
import { outbox } from '../../api/queue/outbox'
import { useJob, useRefusals } from '../../job/JobContext'
import { useShop } from '../../job/ShopContext'
import { shownFields } from '../../job/shown-fields'
import { FieldFrame, describedBy } from '../../ui/FieldFrame'

export interface MeasuredFormProps {
  test: Schemas['MeasuredView']
  /** What was typed, in the units it was typed in. */
  onMeasure: (typed: Record<string, string>, shownIn: UnitSystem) => void
}

/** A test that is measured or read: what has to be typed, and how it is done. */
export function MeasuredForm({ test, onMeasure }: MeasuredFormProps): ReactNode {
  const { view } = useJob()
  const refusals = useRefusals()
  const { units } = useShop()
  const [typed, setTyped] = useState<Record<string, string>>({})
  // A number is of the units that stood beside it when it was typed, whatever the shop shows by now.
  const [typedIn, setTypedIn] = useState<UnitSystem | null>(null)
  const shownIn = typedIn ?? units
  useEffect(() => shownFields.show(view.id, 'measure'), [view.id])
  const mine = refusals.filter((refusal) => refusal.field === 'measure')
  const problem = (key: string): Problem | undefined =>
    mine.findLast((refusal) => refusal.problem.field === key)?.problem
  const send = () => {
    for (const refusal of mine) outbox.dismiss(refusal)
    onMeasure(typed, shownIn)
    setTypedIn(null)
  }
  return (
    <section aria-label={test.label}>
      <p className="leading-[19px]">
        {test.how} <span className="text-ash">{test.caution}</span>
      </p>
      <form
        className="mt-3 flex flex-wrap items-start gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          send()
        }}
      >
        {test.asks.map((asked) => {
          const id = `measure-${test.test}-${asked.key}`
          const wrong = problem(asked.key)
          return (
            <div
              key={asked.key}
              className={test.test === 'mark' ? 'w-[300px]' : 'w-[180px] max-bench:w-full'}
            >
              <FieldFrame id={id} label={asked.label} problem={wrong}>
                <span
                  className={`flex min-h-12 items-center border-[1.5px] bg-raise focus-within:outline-3 focus-within:outline-offset-3 focus-within:outline-chalk ${wrong === undefined ? 'border-dim' : 'border-b-4 border-dim border-b-chalk'}`}
                >
                  <input
                    id={id}
                    value={typed[asked.key] ?? ''}
                    placeholder={asked.example}
                    autoComplete="off"
                    spellCheck={false}
                    aria-invalid={wrong !== undefined || undefined}
                    aria-describedby={describedBy(id, wrong)}
                    onChange={(event) => {
                      const next = { ...typed, [asked.key]: event.target.value }
                      setTyped(next)
                      const empty = Object.values(next).every((text) => text === '')
                      setTypedIn(empty ? null : shownIn)
                    }}
                    className="min-w-0 grow self-stretch bg-transparent px-2.5 py-2 text-[19px] font-semibold outline-none placeholder:font-normal placeholder:text-ash"
                  />
                  <span className="shrink-0 pr-2 text-ash">
                    {shownIn === 'imperial' ? asked.unit_imperial : asked.unit_metric}
                  </span>
                </span>
              </FieldFrame>
            </div>
          )
        })}
        <button
          type="submit"
          // Beside the fields, under the line of their labels; it stays there when one of them has a problem.
          className="mt-6 min-h-12 border-[1.5px] border-scribe px-4 font-semibold max-bench:mt-0"
        >
          {test.test === 'mark' ? 'Read it' : 'Work it out'}
        </button>
      </form>
      {mine.some((refusal) => refusal.problem.field === 'spot') && (
        <p role="alert" className="mt-1">
          Say where it was done.
        </p>
      )}
    </section>
  )
}
