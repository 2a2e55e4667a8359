import { Popover, ToggleGroup } from 'radix-ui'
import { useRef, useState, type ReactNode } from 'react'
import { OnTop } from './OnTop'
import { Question } from './Question'

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
  const [open, setOpen] = useState(false)
  const list = useRef<HTMLDivElement>(null)
  const first = useRef<HTMLButtonElement>(null)
  /** An arrow that opens it is on its way into it; Enter is not. */
  const into = useRef(false)
  const picked = choices.find((choice) => choice.id === chosen)
  const choose = (next: string) => {
    setOpen(false)
    onChoose(next)
  }
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Question id={id}>
        <Popover.Trigger
          id={id}
          data-own-letters=""
          aria-label={`${label}: ${picked?.label ?? placeholder}`}
          aria-describedby={describedBy}
          onKeyDown={(event) => {
            if (event.key !== 'ArrowDown') return
            event.preventDefault()
            into.current = true
            setOpen(true)
          }}
          className={`flex min-h-12 w-full items-center justify-between gap-2 border-[1.5px] border-dim bg-raise px-3 text-left ${picked === undefined ? 'font-normal text-ash' : 'font-semibold'}`}
        >
          <span className="truncate">{picked?.label ?? placeholder}</span>
          <svg width="12" height="8" aria-hidden className="shrink-0">
            <path d="M1 1l5 5 5-5" fill="none" stroke="currentColor" strokeWidth="1.5" />
          </svg>
        </Popover.Trigger>
      </Question>
      <Popover.Portal>
        <Popover.Content
          ref={list}
          tabIndex={-1}
          data-of={id}
          // What opens it chooses nothing of it: where nothing is chosen yet the keys stand before its first line.
          onOpenAutoFocus={(event) => {
            if (chosen === '' && !into.current) {
              event.preventDefault()
              list.current?.focus()
            }
            into.current = false
          }}
          onKeyDown={(event) => {
            if (event.key !== 'ArrowDown' || event.target !== list.current) return
            event.preventDefault()
            first.current?.focus()
          }}
          align="start"
          sideOffset={2}
          collisionPadding={12}
          aria-label={label}
          data-list=""
          className="z-[60] max-h-[var(--radix-popover-content-available-height)] min-w-[var(--radix-popover-trigger-width)] overflow-auto border-[1.5px] border-chalk bg-raise"
        >
          <OnTop />
          <ToggleGroup.Root
            type="single"
            orientation="vertical"
            value={chosen}
            aria-label={label}
            // The chosen one pressed again stays.
            onValueChange={(next) => choose(next === '' ? chosen : next)}
            className="flex flex-col"
          >
            {choices.map((choice, at) => (
              <ToggleGroup.Item
                key={choice.id}
                ref={at === 0 ? first : null}
                value={choice.id}
                className={`${LINE} data-[state=on]:font-bold`}
              >
                {choice.label}
              </ToggleGroup.Item>
            ))}
          </ToggleGroup.Root>
          {chosen !== '' && (
            <button type="button" className={`${LINE} w-full text-ash`} onClick={() => choose('')}>
              Not known after all
            </button>
          )}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  )
}

const LINE =
  'flex min-h-11 items-center border-b border-rule px-3 text-left last:border-0 hover:bg-chalk hover:text-iron focus-visible:bg-chalk focus-visible:text-iron focus-visible:outline-offset-[-3px]'
