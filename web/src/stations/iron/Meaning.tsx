import { useState, type ReactNode } from 'react'
import { useJob } from '../../job/JobContext'
import { Fold } from '../../ui/Fold'

/**
 * What the iron means for this job, and what each iron in question asks of the plan. Before any test it is little
 * more than a guess, and lies folded in.
 */
export function Meaning(): ReactNode {
  const { view } = useJob()
  const [open, setOpen] = useState(false)
  if (view.plan.iron.steps.length > 0) return <All />
  return (
    <Fold
      title="Before any test"
      summary={view.plan.iron.meaning[0] ?? ''}
      open={open}
      onOpenChange={setOpen}
    >
      <All />
    </Fold>
  )
}

function All(): ReactNode {
  const { view } = useJob()
  const { meaning, demands } = view.plan.iron
  return (
    <div className="grid grid-cols-2 gap-x-8 gap-y-3 border-t border-rule pt-2 max-bench:grid-cols-1">
      <section aria-label="What it means here">
        <h2 className="text-[22px] leading-7">What it means here</h2>
        {meaning.map((sentence) => (
          <p key={sentence} className="mt-1 leading-[19px]">
            {sentence}
          </p>
        ))}
      </section>
      {demands.length > 0 && (
        <section aria-label="Which iron asks what">
          <h2 className="text-[22px] leading-7">Which iron asks what</h2>
          <ul>
            {demands.map((demand) => (
              <li
                key={demand.what + demand.asks}
                className="flex items-baseline justify-between gap-3 border-b border-rule py-1"
              >
                <span>
                  {demand.what} <b>{demand.asks}</b>
                </span>
                <span className="shrink-0 text-ash">{demand.forced_by}</span>
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  )
}
