import type { ReactNode } from 'react'
import { goOn, pressPlate, useTyped } from './focus'
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
  /** Where the keys go after the last of its fields; to the work where nobody says. */
  follows?: () => void
}

/** Keeps the typed text until Enter or leaving the field, then says it. */
export function TypedInput(props: TypedInputProps): ReactNode {
  const { id, typed, aside, wrong, describedBy, onCommit, onStart, placeholder, follows } = props
  const ref = useTyped<HTMLInputElement>(id)
  const draft = useDraft(id, typed, onCommit)
  // How a value of another unit was understood takes a line of its own: the field is for what was typed.
  const understood = /\d/.test(aside) && !draft.left
  return (
    <>
      <span
        className={`flex min-h-12 items-center border-[1.5px] bg-raise focus-within:outline-3 focus-within:outline-offset-3 focus-within:outline-chalk ${wrong ? 'border-b-4 border-dim border-b-chalk' : 'border-dim'}`}
      >
        <input
          ref={ref}
          id={id}
          value={draft.text}
          placeholder={placeholder}
          autoComplete="off"
          enterKeyHint="next"
          spellCheck={false}
          aria-invalid={wrong || undefined}
          aria-describedby={describedBy}
          className="min-w-0 grow self-stretch bg-transparent px-2.5 py-2 text-[19px] font-semibold outline-none placeholder:font-normal placeholder:text-ash"
          onFocus={onStart}
          onChange={(event) => draft.type(event.target.value)}
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
        <span className="shrink-0 pr-2 text-ash">
          {draft.left ? 'half typed: Enter says it' : understood ? '' : aside}
        </span>
      </span>
      {understood && <span className="mt-0.5 block text-right small text-ash">{aside}</span>}
    </>
  )
}
