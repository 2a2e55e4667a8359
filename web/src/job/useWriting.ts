import { useEffect, useState } from 'react'
import type { Change, Problem } from '../api/client'
import { outbox } from '../api/queue/outbox'
import { useJob } from './JobContext'

export interface Writing {
  /** Says it; a second press while the first is on its way is none. */
  write: (change: Change) => void
  /** What was wrong with it, each at its field. */
  problems: readonly Problem[]
}

/**
 * A form that writes one thing down: it is done once that is taken, or kept for a server that is not reached. Done is
 * told the id of what was said.
 */
export function useWriting(onDone: (id: string) => void): Writing {
  const { say } = useJob()
  const [sent, setSent] = useState<string | null>(null)
  const [problems, setProblems] = useState<readonly Problem[]>([])
  useEffect(() => {
    if (sent === null) return
    let heard = false
    const look = () => {
      // What is put away here is told again at once: it was answered already.
      if (heard) return
      const { refusals, reached, waiting } = outbox.now()
      const mine = refusals.filter((refusal) => refusal.id.startsWith(`${sent}.`))
      if (mine.length > 0) {
        heard = true
        setSent(null)
        setProblems(mine.map((refusal) => refusal.problem))
        for (const refusal of mine) outbox.dismiss(refusal)
      } else if (!reached || !waiting.some((item) => item.id === sent)) {
        heard = true
        setSent(null)
        onDone(sent)
      }
    }
    const unsubscribe = outbox.subscribe(look)
    look()
    return unsubscribe
  }, [sent, onDone])
  const write = (change: Change) => {
    if (sent !== null) return
    setProblems([])
    setSent(say(change))
  }
  return { write, problems }
}
