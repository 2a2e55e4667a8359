import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { Reasons } from '../../ui/Reasons'
import { Sheet } from '../../ui/Sheet'

export interface StopSheetProps {
  left: number
  planned: number
  piece: string
  must: Schemas['MustStop']
  open: boolean
  onClose: () => void
  onStop: (why: string) => void
}

const USUAL = [
  'somebody is hurt',
  'gas is out',
  'power is out',
  'the part moved',
  'it does not go well',
  'night',
]

/** It must stop: what is done at once is read here; one press on why, and it is covered. */
export function StopSheet({ left, planned, piece, must, open, onClose, onStop }: StopSheetProps): ReactNode {
  return (
    <Sheet stops title="It must stop" open={open} onOpenChange={(o) => !o && onClose()}>
      <div className="mb-3 border-2 border-chalk px-3 py-2 text-[19px]" data-testid="stop-hurt">
        <b>Somebody is hurt?</b> {must.hurt.join(' ')}
      </div>
      <p className="mb-3 text-[19px]">{must.otherwise.join(' ')}</p>
      <p className="mb-2 text-[17px]">
        {left} of {planned} {piece}s are not laid. Why does it stop here? One press, and it counts as covered.
      </p>
      <Reasons usual={USUAL} verb="Cover it" large onReason={onStop} />
    </Sheet>
  )
}
