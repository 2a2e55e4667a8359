import { useEffect, useState, type ReactNode } from 'react'
import type { Problem, Schemas, UnitSystem } from '../../api/client'
import { outbox } from '../../api/queue/outbox'
import { useJob, useRefusals } from '../../job/JobContext'
import { useShop } from '../../job/ShopContext'
import { shownFields } from '../../job/shown-fields'
import { Box } from '../../ui/Box'
import { Button } from '../../ui/Button'
import { fieldId, useQuestion } from '../../ui/focus'
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
  const id = fieldId(test.test)
  const question = useQuestion(id)
  const mine = refusals.filter((refusal) => refusal.field === 'measure')
  const problem = (key: string): Problem | undefined =>
    mine.findLast((refusal) => refusal.problem.field === key)?.problem
  const send = () => {
    for (const refusal of mine) outbox.dismiss(refusal)
    onMeasure(typed, shownIn)
    setTypedIn(null)
  }
  if (view.practice != null) {
    return (
      <section ref={question} id={id} aria-label={test.label} tabIndex={-1} data-question="">
        <p className="pb-2">{test.how}</p>
        <Button onPress={() => onMeasure({}, units)}>{test.label}: measure it here</Button>
      </section>
    )
  }
  return (
    <section ref={question} id={id} aria-label={test.label} tabIndex={-1} data-question="">
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
                <Box
                  id={id}
                  text={typed[asked.key] ?? ''}
                  placeholder={asked.example}
                  aside={shownIn === 'imperial' ? asked.unit_imperial : asked.unit_metric}
                  keys={asked.keys}
                  wrong={wrong !== undefined}
                  describedBy={describedBy(id, wrong)}
                  onType={(text) => {
                    const next = { ...typed, [asked.key]: text }
                    setTyped(next)
                    const empty = Object.values(next).every((it) => it === '')
                    setTypedIn(empty ? null : shownIn)
                  }}
                />
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
