import type { ReactNode } from 'react'
import { Reasons } from '../ui/Reasons'
import { Sheet } from '../ui/Sheet'
import { useJob } from './JobContext'

export interface StrikeSheetProps {
  target: string | null
  what: string
  onClose: () => void
}

const USUAL = ['wrong button', 'misread', 'dirty or scaled spot', 'done again properly']

/** Crosses something out of the job, with the reason. */
export function StrikeSheet({ target, what, onClose }: StrikeSheetProps): ReactNode {
  const { say } = useJob()
  const strike = (reason: string) => {
    if (target === null) return
    say({ kind: 'strike', target, reason })
    onClose()
  }
  return (
    <Sheet title="Cross it out" open={target !== null} onOpenChange={(open) => !open && onClose()}>
      <p className="mb-3">{what}. It stays in the record, crossed out. Why?</p>
      <Reasons usual={USUAL} verb="Cross out" onReason={strike} />
    </Sheet>
  )
}
