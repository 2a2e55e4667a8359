import type { ReactNode } from 'react'
import { useTyped } from './focus'
import { useDraft } from './useDraft'

export interface TypedProseProps {
  id: string
  typed: string
  describedBy?: string | undefined
  placeholder?: string | undefined
  onCommit: (typed: string) => void
}

/** Words in several lines, kept until the field is left. */
export function TypedProse({ id, typed, describedBy, placeholder, onCommit }: TypedProseProps): ReactNode {
  const draft = useDraft(id, typed, onCommit)
  return (
    <textarea
      ref={useTyped<HTMLTextAreaElement>(id)}
      id={id}
      rows={6}
      value={draft.text}
      placeholder={placeholder}
      aria-describedby={describedBy}
      className="block w-full resize-y border-[1.5px] border-dim bg-raise px-2.5 py-2 text-[16px] placeholder:text-ash"
      onChange={(event) => draft.type(event.target.value)}
      onBlur={draft.commit}
    />
  )
}
