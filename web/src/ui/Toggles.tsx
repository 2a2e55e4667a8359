import { ToggleGroup } from 'radix-ui'
import type { ReactNode } from 'react'
import { pressPlate } from './focus'
import { Question } from './Question'

export interface TogglesProps {
  id?: string | undefined
  /** Its name; where it stands in sight as a label, the id of that. */
  label: string
  labelledBy?: string | undefined
  choices: readonly { id: string; label: string }[]
  chosen: string
  onChoose: (id: string) => void
  describedBy?: string | undefined
  /** How the choices are laid out, and how each looks. */
  className: string
  itemClassName: string
}

/** One of a few choices, each in sight. Pressing the chosen one makes it unknown again. */
export function Toggles(props: TogglesProps): ReactNode {
  const { id, label, labelledBy, choices, chosen, onChoose, describedBy, className, itemClassName } = props
  return (
    <Question id={id}>
      <ToggleGroup.Root
        type="single"
        id={id}
        value={chosen}
        onValueChange={onChoose}
        aria-label={labelledBy === undefined ? label : undefined}
        aria-labelledby={labelledBy}
        aria-describedby={describedBy}
        className={className}
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
            className={`min-h-11 border-[1.5px] border-scribe text-ash data-[state=on]:border-chalk data-[state=on]:bg-raise data-[state=on]:font-semibold data-[state=on]:text-chalk ${itemClassName}`}
          >
            {choice.label}
          </ToggleGroup.Item>
        ))}
      </ToggleGroup.Root>
    </Question>
  )
}
