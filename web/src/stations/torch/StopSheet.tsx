import type { ReactNode } from 'react'
import { Reasons } from '../../ui/Reasons'
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
  return (
    <Sheet
      title={`${left} of ${planned} ${piece}s are not laid`}
      open={open}
      onOpenChange={(o) => !o && onClose()}
    >
      <p className="mb-3 text-[17px]">
        Flame off first, then cover it. The joint is not whole: Check will ask for it. Why stop here?
      </p>
      <Reasons usual={USUAL} verb="Cover it" large onReason={onStop} />
    </Sheet>
  )
}
