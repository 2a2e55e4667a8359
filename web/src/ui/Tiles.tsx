import { ToggleGroup } from 'radix-ui'
import type { ReactNode } from 'react'
import { pressPlate } from './focus'

export interface TilesProps {
  id?: string
  label: string
  choices: readonly { id: string; label: string }[]
  chosen: string
  onChoose: (id: string) => void
  describedBy?: string | undefined
  columns: 2 | 3
}

/** One of several choices, each a line of its own grid: one press, none hidden. */
export function Tiles(props: TilesProps): ReactNode {
  const { id, label, choices, chosen, onChoose, describedBy, columns } = props
  return (
    <ToggleGroup.Root
      type="single"
      id={id}
      value={chosen}
      onValueChange={onChoose}
      aria-label={label}
      aria-describedby={describedBy}
      className={`grid gap-1 ${columns === 3 ? 'grid-cols-3 max-bench:grid-cols-2' : 'grid-cols-2'}`}
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
          className="min-h-11 border-[1.5px] border-scribe px-2.5 text-left leading-[18px] text-ash data-[state=on]:border-chalk data-[state=on]:bg-raise data-[state=on]:font-semibold data-[state=on]:text-chalk"
        >
          {choice.label}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  )
}
