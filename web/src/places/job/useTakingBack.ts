import { useState } from 'react'
import { outbox, sender } from '../../api/queue/outbox'
import { useJob } from '../../job/JobContext'

export interface TakingBack {
  /** Nothing while there is nothing to take back. */
  undo: (() => void) | null
  redo: (() => void) | null
  /** What was taken back or put back from here, until something else is said. */
  told: string
}

/** Taking back and putting back: everybody their own word. */
export function useTakingBack(): TakingBack {
  const { view, say, waiting } = useJob()
  const [askedAt, setAskedAt] = useState<number | null>(null)
  const own = view.job.own_words.find((word) => word.sender === sender)
  const last = own?.undo ?? null
  const redone = own?.redo ?? null
  const asked = () => setAskedAt(view.revision)
  const answered = askedAt !== null && view.revision === askedAt + 1 && waiting.length === 0
  return {
    undo: outbox.canUndo(view.id, last)
      ? () => {
          asked()
          outbox.undo(view.id, last)
        }
      : null,
    redo:
      redone !== null && waiting.length === 0
        ? () => {
            asked()
            say({ kind: 'redo', target: redone })
          }
        : null,
    told: answered ? view.told : '',
  }
}
