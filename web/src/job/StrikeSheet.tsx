import { useState, type ReactNode } from 'react'
import { Button } from '../ui/Button'
import { Sheet } from '../ui/Sheet'
import { useJob } from './JobContext'

export interface StrikeSheetProps {
  target: string | null
  what: string
  onClose: () => void
}

const USUAL = ['wrong button', 'misread', 'dirty or scaled spot', 'done again properly']

/** Strikes something out of the job, with the reason. */
export function StrikeSheet({ target, what, onClose }: StrikeSheetProps): ReactNode {
  const { say } = useJob()
  const [reason, setReason] = useState('')
  const strike = (why: string) => {
    if (target !== null && why.trim() !== '') {
      say({ kind: 'strike', target, reason: why.trim() })
      setReason('')
      onClose()
    }
  }
  return (
    <Sheet title="Cross it out" open={target !== null} onOpenChange={(open) => !open && onClose()}>
      <p className="mb-3">{what}. It stays in the record, crossed out. Why?</p>
      <div className="flex flex-wrap gap-2">
        {USUAL.map((why) => (
          <Button key={why} onPress={() => strike(why)}>
            {why}
          </Button>
        ))}
      </div>
      <form
        className="mt-3 flex gap-2"
        onSubmit={(event) => {
          event.preventDefault()
          strike(reason)
        }}
      >
        <input
          aria-label="Another reason"
          placeholder="another reason"
          value={reason}
          onChange={(event) => setReason(event.target.value)}
          className="min-h-11 grow border-[1.5px] border-dim bg-iron px-3"
        />
        <button type="submit" className="min-h-11 border-[1.5px] border-dim px-4 font-semibold">
          Strike
        </button>
      </form>
    </Sheet>
  )
}
