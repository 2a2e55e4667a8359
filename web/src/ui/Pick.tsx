import { Select } from 'radix-ui'
import type { ReactNode } from 'react'

export interface PickProps {
  id: string
  label: string
  choices: readonly { id: string; label: string }[]
  chosen: string
  onChoose: (id: string) => void
  describedBy?: string | undefined
  /** What stands while nothing is chosen. */
  placeholder: string
}

const NOT_KNOWN = '-'

/** One of many choices, in a list that opens. */
export function Pick({
  id,
  label,
  choices,
  chosen,
  onChoose,
  describedBy,
  placeholder,
}: PickProps): ReactNode {
  return (
    <Select.Root value={chosen} onValueChange={(next) => onChoose(next === NOT_KNOWN ? '' : next)}>
      <Select.Trigger
        id={id}
        aria-label={label}
        aria-describedby={describedBy}
        className="flex min-h-12 w-full items-center justify-between gap-2 border-[1.5px] border-dim bg-raise px-3 text-left font-semibold data-[placeholder]:font-normal data-[placeholder]:text-ash"
      >
        <span className="truncate">
          <Select.Value placeholder={placeholder} />
        </span>
        <svg width="12" height="8" aria-hidden className="shrink-0">
          <path d="M1 1l5 5 5-5" fill="none" stroke="currentColor" strokeWidth="1.5" />
        </svg>
      </Select.Trigger>
      <Select.Portal>
        <Select.Content
          position="popper"
          sideOffset={2}
          collisionPadding={12}
          className="z-30 max-h-[var(--radix-select-content-available-height)] min-w-[var(--radix-select-trigger-width)] overflow-auto border-[1.5px] border-chalk bg-raise"
        >
          <Select.Viewport>
            {choices.map((choice) => (
              <Line key={choice.id} id={choice.id} label={choice.label} />
            ))}
            {chosen !== '' && <Line id={NOT_KNOWN} label="Not known after all" />}
          </Select.Viewport>
        </Select.Content>
      </Select.Portal>
    </Select.Root>
  )
}

function Line({ id, label }: { id: string; label: string }): ReactNode {
  return (
    <Select.Item
      value={id}
      className="flex min-h-11 cursor-pointer items-center border-b border-rule px-3 last:border-0 data-[highlighted]:bg-chalk data-[highlighted]:text-iron data-[state=checked]:font-bold"
    >
      <Select.ItemText>{label}</Select.ItemText>
    </Select.Item>
  )
}
