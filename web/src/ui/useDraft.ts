import { useEffect, useRef, useState } from 'react'

export interface Draft {
  /** What stands in the field. */
  text: string
  type: (text: string) => void
  /** Says it, if it differs from what is stored. */
  commit: () => void
  /** Forgets what was typed. */
  drop: () => void
}

/** Keeps what is typed until it is said; what is still being typed when the page is closed is said then. */
export function useDraft(stored: string, onCommit: (typed: string) => void): Draft {
  const [draft, setDraft] = useState<string | null>(null)
  const commit = () => {
    if (draft !== null && draft.trim() !== stored) onCommit(draft.trim())
    setDraft(null)
  }
  const latest = useRef(commit)
  useEffect(() => {
    latest.current = commit
  })
  useEffect(() => {
    const handleLeaving = () => latest.current()
    window.addEventListener('pagehide', handleLeaving)
    return () => window.removeEventListener('pagehide', handleLeaving)
  }, [])
  return { text: draft ?? stored, type: setDraft, commit, drop: () => setDraft(null) }
}
