import { useState, type ReactNode } from 'react'
import { Button } from '../../ui/Button'
import { Sheet } from '../../ui/Sheet'

export interface StopSheetProps {
  left: number
  planned: number
  piece: string
  open: boolean
  onClose: () => void
  onStop: (why: string) => void
}

const USUAL = [
  'gas is out',
  'power is out',
  'somebody is hurt',
  'the part moved',
  'it does not go well',
  'night',
]

/** Stopping before the end: what is open is said, and the welder says why. One press is enough. */
export function StopSheet({ left, planned, piece, open, onClose, onStop }: StopSheetProps): ReactNode {
  const [why, setWhy] = useState('')
  return (
    <Sheet
      title={`${left} of ${planned} ${piece}s are not laid`}
      open={open}
      onOpenChange={(o) => !o && onClose()}
    >
      <p className="mb-3 text-[17px]">
        Flame off first, then cover it. The joint is not whole: Check will ask for it. Why stop here?
      </p>
      <div className="grid grid-cols-2 gap-[9px]">
        {USUAL.map((words) => (
          <Button key={words} large onPress={() => onStop(words)}>
            {words}
          </Button>
        ))}
      </div>
      <form
        className="mt-3 flex gap-2"
        onSubmit={(event) => {
          event.preventDefault()
          if (why.trim() !== '') onStop(why.trim())
        }}
      >
        <input
          aria-label="Another reason"
          placeholder="another reason"
          value={why}
          onChange={(event) => setWhy(event.target.value)}
          className="min-h-[72px] min-w-0 grow border-2 border-dim bg-iron px-3 text-[19px]"
        />
        <button type="submit" className="min-h-[72px] border-2 border-chalk px-4 text-[19px] font-bold">
          Cover it
        </button>
      </form>
    </Sheet>
  )
}
