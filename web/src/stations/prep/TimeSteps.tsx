import type { ReactNode } from 'react'
import { useJob } from '../../job/JobContext'
import { useWay } from '../../job/opened'
import { useShop } from '../../job/ShopContext'
import { clock } from '../../quantity/show'
import { Button } from '../../ui/Button'

/** How long the steps take here: one press begins to time one, one press ends it; what was timed moves the hours. */
export function TimeSteps(): ReactNode {
  const { view, say } = useJob()
  const shop = useShop()
  const { way } = useWay(view.plan.methods.chosen?.method)
  const steps = way?.steps.filter((step) => step.attended_min > 0) ?? []
  const running = view.job.rounds.at(-1)?.timed.find((timed) => timed.to_ms == null)
  if (steps.length === 0) return null
  return (
    <details open={running !== undefined || undefined}>
      <summary className="flex min-h-11 cursor-pointer items-center border-b border-dotted border-dim">
        How long it takes here
      </summary>
      <ul className="grid grid-cols-2 gap-x-6 max-bench:grid-cols-1">
        {steps.map((step, at) => {
          const now = running?.step === step.id
          return (
            <li
              key={`${step.id} ${at}`}
              className="flex items-center justify-between gap-3 border-b border-rule py-1"
            >
              <span>
                {step.label}{' '}
                <span className="small text-ash">
                  {now
                    ? `timed since ${clock(running.from_ms, shop, view.now_ms)}`
                    : `reckoned ${step.hands_words}`}
                </span>
              </span>
              <Button
                chosen={now}
                label={`${now ? 'Stop' : 'Time it'}: ${step.label}`}
                onPress={() => say({ kind: 'time', step: step.id, running: !now })}
              >
                {now ? 'Stop' : 'Time it'}
              </Button>
            </li>
          )
        })}
      </ul>
    </details>
  )
}
