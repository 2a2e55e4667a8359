import { useState, type ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { Field } from '../../job/Field'
import { useJob } from '../../job/JobContext'
import { Fold } from '../../ui/Fold'

/** Steps that may have a source of their own, in the order of the work. */
const OWN = ['heat.soak', 'heat.hold', 'heat.reheat', 'heat.night', 'heat.after', 'heat.way_down'] as const

/** What says nothing where nobody chose it. */
const NOTHING: ReadonlySet<string> = new Set(['heat.hold', 'heat.night', 'heat.way_down'])

/** One lighting step by step: what each takes and burns, and another source for any of them. */
export function Steps({ steps }: { steps: readonly Schemas['HeatStepPlan'][] }): ReactNode {
  const { view, typed } = useJob()
  const own = OWN.filter((name) => typed(name) !== '')
  const [open, setOpen] = useState(own.length > 0)
  // A part that is done in one go is not kept over night, and what is packed at once has no way down before it.
  const apart: Readonly<Partial<Record<(typeof OWN)[number], () => boolean>>> = {
    'heat.night': () => view.plan.methods.sessions.length > 1 || typed('heat.night') !== '',
    'heat.way_down': () =>
      typed('cooling.oven') !== '' ||
      typed('heat.way_down') !== '' ||
      steps.some((step) => step.step === 'way_down'),
  }
  const bake = view.plan.lightings.find((it) => it.what === 'bake')
  if (steps.length === 0) return null
  const others = new Set(steps.map((step) => step.source_label)).size
  return (
    <Fold
      title="Step by step"
      summary={others > 1 ? `${others} sources` : 'one source for all of it'}
      open={open}
      onOpenChange={setOpen}
    >
      <ul data-testid="heat-steps">
        {bake !== undefined && (
          <li className="flex flex-wrap items-baseline gap-x-3 border-b border-rule py-1">
            <b>{bake.label}</b>
            <span className="ml-auto text-right">{bake.timing}</span>
          </li>
        )}
        {steps.map((step, at) => (
          <li
            key={`${step.step} ${at}`}
            data-step={step.step}
            className="flex flex-wrap items-baseline gap-x-3 border-b border-rule py-1"
          >
            <b>{step.label}</b>
            <span className="text-ash">{step.source_label}</span>
            <span className="ml-auto text-right">{step.words}</span>
          </li>
        ))}
      </ul>
      <div className="grid grid-cols-2 gap-3 bench:grid-cols-4">
        {bake !== undefined && <Field name="heat.bake" folded placeholder="as heated" />}
        {OWN.filter((name) => apart[name]?.() ?? true).map((name) => (
          <Field key={name} name={name} folded placeholder={NOTHING.has(name) ? 'nothing' : 'as heated'} />
        ))}
      </div>
    </Fold>
  )
}
