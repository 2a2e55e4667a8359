import { useEffect, useRef, useState } from 'react'
import { halfTyped } from './half-typed'

export interface Draft {
  /** What stands in the field. */
  text: string
  /** It was typed before the tab was ended, and is not said. */
  left: boolean
  /** It differs from what is stored. */
  changed: boolean
  type: (text: string) => void
  /** Says it, if it differs from what is stored. */
  commit: () => void
  /** Forgets what was typed. */
  drop: () => void
}

/**
 * Keeps what is typed until it is said; what is still being typed when the page is closed is said then, and
 * what was half typed when the browser was ended stands in the field again.
 */
export function useDraft(id: string, stored: string, onCommit: (typed: string) => void): Draft {
  const [draft, setDraft] = useState<string | null>(() => halfTyped.read(id))
  const [left, setLeft] = useState(draft !== null)
  // Enter says it and moves the keys on, and the field that is left would say it again before it is drawn anew.
  const standing = useRef(draft)
  const become = (next: string | null) => {
    standing.current = next
    halfTyped.write(id, next)
    setDraft(next)
    setLeft(false)
  }
  const commit = () => {
    const said = standing.current?.trim()
    if (said !== undefined && said !== stored) onCommit(said)
    become(null)
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
  return {
    text: draft ?? stored,
    left,
    changed: draft !== null && draft.trim() !== stored,
    type: become,
    commit,
    drop: () => become(null),
  }
}
