import { useState, type ReactNode } from 'react'
import { useKeptOnLeaving } from './useKeptOnLeaving'

export interface TypedProseProps {
  id: string
  typed: string
  describedBy?: string | undefined
  placeholder?: string | undefined
  onCommit: (typed: string) => void
}

/** Words in several lines, kept until the field is left. */
export function TypedProse({ id, typed, describedBy, placeholder, onCommit }: TypedProseProps): ReactNode {
  const [draft, setDraft] = useState<string | null>(null)
  const commit = () => {
    if (draft !== null && draft.trim() !== typed) onCommit(draft.trim())
    setDraft(null)
  }
  useKeptOnLeaving(commit)
  return (
    <textarea
      id={id}
      rows={6}
      value={draft ?? typed}
      placeholder={placeholder}
      aria-describedby={describedBy}
      className="block w-full resize-y border-[1.5px] border-dim bg-raise px-2.5 py-2 text-[16px] placeholder:text-ash"
      onChange={(event) => setDraft(event.target.value)}
      onBlur={commit}
    />
  )
}
