import type { ReactNode } from 'react'
import type { Problem } from '../../api/client'
import type { FieldView } from '../../api/fields'
import { Button } from '../../ui/Button'
import { PunchMark } from '../../ui/PunchMark'

interface GearProps {
  view: FieldView
  problem: Problem | undefined
  onSay: (typed: string) => void
}

/** What is at hand of one kind: a full punch mark is here. */
export function Gear({ view, problem, onSay }: GearProps): ReactNode {
  const here = view.typed
    .split(',')
    .map((id) => id.trim())
    .filter((id) => id !== '')
  // "None" is an answer of its own: it stands alone, and gives way to whatever is there.
  const toggle = (id: string) => {
    const others = here.filter((other) => other !== id && other !== 'none')
    const next = here.includes(id) ? others : id === 'none' ? ['none'] : [...others, id]
    onSay(next.join(','))
  }
  return (
    <div role="group" aria-label={view.label}>
      <p className="label mb-1">{view.label}</p>
      <div className="flex flex-wrap gap-2">
        {view.choices.map((choice) => (
          <Button key={choice.id} chosen={here.includes(choice.id)} onPress={() => toggle(choice.id)}>
            <svg width="14" height="14" aria-hidden className="shrink-0">
              <PunchMark x={7} y={7} radius={5} amount={here.includes(choice.id) ? 'enough' : 'nothing'} />
            </svg>
            {choice.label}
          </Button>
        ))}
      </div>
      {problem !== undefined && (
        <p role="alert" className="mt-1">
          {problem.message}
        </p>
      )}
    </div>
  )
}
