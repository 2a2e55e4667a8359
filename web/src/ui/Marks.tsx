import { ToggleGroup } from 'radix-ui'
import type { ReactNode } from 'react'
import { Question } from './Question'

export interface MarksProps {
  id?: string
  /** Its name; where it stands in sight as a label, the id of that. */
  label: string
  labelledBy?: string | undefined
  choices: readonly { id: string; label: string }[]
  chosen: readonly string[]
  onChoose: (ids: string[]) => void
  describedBy?: string | undefined
}

/** Several of a few choices: each pressed on its own. */
export function Marks({
  id,
  label,
  labelledBy,
  choices,
  chosen,
  onChoose,
  describedBy,
}: MarksProps): ReactNode {
  return (
    <Question id={id}>
      <ToggleGroup.Root
        type="multiple"
        id={id}
        value={[...chosen]}
        onValueChange={onChoose}
        aria-label={labelledBy === undefined ? label : undefined}
        aria-labelledby={labelledBy}
        aria-describedby={describedBy}
        className="flex flex-wrap gap-x-1.5 gap-y-1.5"
      >
        {choices.map((choice) => (
          <ToggleGroup.Item
            key={choice.id}
            value={choice.id}
            className="flex min-h-11 grow items-center justify-center gap-2 border-[1.5px] border-scribe px-2.5 text-ash data-[state=on]:border-chalk data-[state=on]:bg-raise data-[state=on]:font-semibold data-[state=on]:text-chalk"
          >
            <svg width="14" height="14" aria-hidden className="shrink-0">
              <rect x="1" y="1" width="12" height="12" fill="none" stroke="currentColor" strokeWidth="1.5" />
              {chosen.includes(choice.id) && (
                <path d="M3.5 7l2.600 3L11 4" fill="none" stroke="currentColor" strokeWidth="2" />
              )}
            </svg>
            {choice.label}
          </ToggleGroup.Item>
        ))}
      </ToggleGroup.Root>
    </Question>
  )
}
