import { useState, type ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { Field } from '../../job/Field'

export interface DrilledProps {
  crack: Schemas['CrackPlan']
}

const ENDS = [
  { side: 'left', drilled: 'drilled_a', past: 'past_a' },
  { side: 'right', drilled: 'drilled_b', past: 'past_b' },
] as const

/** What was really drilled at each tip: it takes the plan's place. */
export function Drilled({ crack }: DrilledProps): ReactNode {
  const tips = ENDS.filter(({ side }) => crack.ends.some((end) => end.side === side && end.kind === 'tip'))
  const drilled = crack.ends.some((end) => end.drilled)
  const [open, setOpen] = useState(drilled)
  if (tips.length === 0) return null
  if (!open) {
    return (
      <button
        type="button"
        onClick={() => setOpen(true)}
        className="mt-2 min-h-11 border-b border-dotted border-dim text-left"
      >
        Drilled already? Say what is there
      </button>
    )
  }
  return (
    <section
      aria-label={`Drilled, crack ${crack.letter}`}
      className="mt-2 grid grid-cols-4 items-end gap-2 border-t border-rule pt-2 max-bench:grid-cols-2"
    >
      {tips.map(({ side, drilled: hole, past }) => (
        <div key={side} className="contents">
          <Field name={`crack.${crack.id}.${hole}`} placeholder="as drilled" />
          <Field name={`crack.${crack.id}.${past}`} placeholder="as planned" />
        </div>
      ))}
    </section>
  )
}
