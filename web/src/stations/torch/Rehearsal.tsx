import { useQuery } from '@tanstack/react-query'
import { useState, type ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { rehearsalQuery } from '../../api/queries'
import { useJob } from '../../job/JobContext'
import { usePlanStands } from '../../job/opened'
import { Button } from '../../ui/Button'
import { BeadStrip } from './BeadStrip'
import { OnTheMap } from './OnTheMap'

/** What will happen once it is lit, gone through step by step beforehand. Nothing of it is logged. */
export function Rehearsal({ torch }: { torch: Schemas['TorchPlan'] }): ReactNode {
  const { view } = useJob()
  const stands = usePlanStands()
  const asked = useQuery({ ...rehearsalQuery(view.id, stands), enabled: torch.rehearsal_steps > 0 })
  const steps = torch.rehearsal_steps > 0 ? (asked.data ?? []) : []
  const [at, setAt] = useState(0)
  // The plan may have fewer by now.
  const here = Math.min(at, steps.length - 1)
  const step = steps[here]
  if (step === undefined) return null
  const ahead = torch.beads?.ahead ?? []
  const bead = ahead[steps.slice(0, here + 1).filter((it) => it.bead != null).length - 1]
  const first = ahead[0]
  // Before the first bead and after the last the strip stays where it is.
  const shown = bead ?? first
  const seam = torch.beads?.seams.find((it) => it.crack === shown?.at.crack)
  return (
    <section aria-label="Rehearsal" data-testid="rehearsal" className="border-t-[1.5px] border-scribe pt-3">
      <h3 className="flex items-baseline justify-between gap-3 text-[22px]">
        What will happen
        <span className="figure text-[17px] text-ash">
          {here + 1} of {steps.length}
        </span>
      </h3>
      <div className="mt-2 flex flex-wrap items-start gap-3">
        <div className="min-w-0 grow basis-[340px]" aria-live="polite">
          <p className="text-[26px] leading-8" data-testid="rehearsed">
            {step.words}
          </p>
          {step.also !== '' && <p className="text-[19px]">{step.also}</p>}
        </div>
        <div className="flex gap-2">
          <Button
            large
            notYet={here === 0 ? 'It is the first step' : undefined}
            onPress={() => setAt(here - 1)}
          >
            Back
          </Button>
          <Button
            large
            notYet={here === steps.length - 1 ? 'It is the last step' : undefined}
            onPress={() => setAt(here + 1)}
          >
            On
          </Button>
        </div>
      </div>
      {seam !== undefined && shown !== undefined && (
        <div className="mt-2 bench:grid bench:grid-cols-[minmax(0,1fr)_auto] bench:gap-x-5">
          <BeadStrip seam={seam} next={step.bead == null ? null : (bead?.number ?? null)} />
          <OnTheMap bead={shown} />
        </div>
      )}
    </section>
  )
}
