import type { ReactNode } from 'react'
import { goOn, pressPlate, useTyped } from './focus'
import { TypedBox } from './TypedBox'
import { useDraft } from './useDraft'

export interface TypedInputProps {
  id: string
  typed: string
  /** How it was understood, in the shop's units; the unit alone while nothing is typed. */
  aside: string
  wrong: boolean
  describedBy?: string | undefined
  onCommit: (typed: string) => void
  onStart?: () => void
  placeholder?: string | undefined
  /** A number is typed: with these beside a phone's number keys. */
  keys?: readonly string[] | null | undefined
  /** Where the keys go after the last of its fields; to the work where nobody says. */
  follows?: () => void
}

/** Keeps the typed text until Enter or leaving the field, then says it. */
export function TypedInput(props: TypedInputProps): ReactNode {
  const { id, typed, aside, wrong, describedBy, onCommit, onStart, placeholder, follows, keys } = props
  const ref = useTyped<HTMLInputElement>(id)
  const draft = useDraft(id, typed, onCommit)
  // How a value of another unit was understood takes a line of its own: the field is for what was typed.
  const understood = /\d/.test(aside) && !draft.left
  return (
    <>
      <TypedBox
        ref={ref}
        id={id}
        text={draft.text}
        onType={draft.type}
        wrong={wrong}
        aside={draft.left ? 'half typed: Enter says it' : understood ? '' : aside}
        keys={keys}
        placeholder={placeholder}
        enterKeyHint="next"
        aria-describedby={describedBy}
        onFocus={onStart}
        onBlur={draft.commit}
        onKeyDown={(event) => {
          if (event.key === 'Enter') {
            // What it leads to has the keys by now: the same press is none there.
            event.preventDefault()
            // Nothing was typed: Enter means the work.
            if (!draft.changed) {
              if (!event.repeat) pressPlate()
              return
            }
            draft.commit()
            goOn(event.currentTarget, follows)
          }
          if (event.key === 'Escape') draft.drop()
        }}
      />
      {understood && <span className="mt-0.5 block text-right small text-ash">{aside}</span>}
    </>
  )
}
