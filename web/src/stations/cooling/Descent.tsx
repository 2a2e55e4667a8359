import { useState, type ReactNode } from 'react'
import { Field } from '../../job/Field'
import { useJob } from '../../job/JobContext'
import { useShop } from '../../job/ShopContext'
import { minutes, temperature } from '../../quantity/show'
import { Fold } from '../../ui/Fold'

/** What comes before the packing, step by step, each with what it gains; changed while nothing is covered yet. */
export function Descent(): ReactNode {
  const { view } = useJob()
  const { units } = useShop()
  const [open, setOpen] = useState(false)
  const chain = view.plan.cooling?.chain ?? []
  return (
    <section aria-label="The way down">
      {chain.length > 0 && (
        <ol className="mb-1 flex flex-wrap gap-x-6" data-testid="cooling-chain">
          {chain.map((step, at) => (
            <li key={step.words}>
              <span className="figure text-[19px]">{at + 1}</span> <b>{step.words}</b>
              <span className="text-ash">
                , ends at {temperature(step.ends_c, units).join(' ')}
                {Math.abs(step.gains_hours) >= 1 / 60 &&
                  `, ${step.gains_hours > 0 ? 'adds' : 'saves'} ${minutes(Math.abs(step.gains_hours) * 60)}`}
              </span>
            </li>
          ))}
        </ol>
      )}
      <Fold
        title="Before it is packed"
        summary={
          chain.length > 1 ? `${chain.length - 1} steps` : 'nothing: covered as soon as the last bead lies'
        }
        open={open}
        onOpenChange={setOpen}
      >
        <div className="grid grid-cols-3 items-end gap-4 max-bench:grid-cols-1">
          <Field name="cooling.post_heat" />
          <Field name="cooling.post_heat_for" />
          <Field name="cooling.taper" />
          <Field name="cooling.oven" />
          <Field name="cooling.oven_for" />
          <Field name="cooling.fire" />
        </div>
      </Fold>
    </section>
  )
}
