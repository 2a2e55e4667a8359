import { ToggleGroup } from 'radix-ui'
import type { ReactNode } from 'react'
import { pressPlate } from './focus'

export interface ChoiceProps {
  id?: string
  label: string
  choices: readonly { id: string; label: string }[]
  chosen: string
  onChoose: (id: string) => void
  describedBy?: string | undefined
}

/** A few choices side by side. Pressing the chosen one makes it unknown again. */
export function Choice({ id, label, choices, chosen, onChoose, describedBy }: ChoiceProps): ReactNode {
  return (
    <ToggleGroup.Root
      type="single"
      id={id}
      value={chosen}
      onValueChange={onChoose}
      aria-label={label}
      aria-describedby={describedBy}
      className="flex flex-wrap"
    >
      {choices.map((choice) => (
        <ToggleGroup.Item
          key={choice.id}
          value={choice.id}
          onKeyDown={(event) => {
            // Pressed again it goes on: to take it back is the space bar's.
            if (event.key !== 'Enter' || choice.id !== chosen) return
            event.preventDefault()
            if (!event.repeat) pressPlate()
          }}
          className="-ml-[1.5px] min-h-11 min-w-11 grow border-[1.5px] border-scribe px-3 text-ash first:ml-0 data-[state=on]:z-10 data-[state=on]:border-chalk data-[state=on]:bg-raise data-[state=on]:font-semibold data-[state=on]:text-chalk"
        >
          {choice.label}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  )
}
