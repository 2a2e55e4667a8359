import type { ReactNode } from 'react'
import { KeepOff } from '../../job/KeepOff'
import { NextOrButton } from '../../job/NextOrButton'
import { Button } from '../../ui/Button'
import { HardSpots } from './HardSpots'

export interface NoCrackYetProps {
  onAdd: () => void
  onAddFace: () => void
}

/** Nothing is mapped: how the ends are found, and where to begin. */
export function NoCrackYet({ onAdd, onAddFace }: NoCrackYetProps): ReactNode {
  return (
    <div className="flex grow flex-col items-start gap-4">
      <KeepOff />
      <h2 className="text-[30px] leading-9">No crack is mapped yet</h2>
      <p className="max-w-xl">
        Clean to bright metal, let the oil out, find both ends: chalk and oil, dye or magnetic particles. Look
        at the other face too, the tip may be further on there.
      </p>
      <HardSpots />
      <div className="flex flex-wrap gap-2">
        <NextOrButton station="cracks" testId="next" onPress={onAdd}>
          Map the crack
        </NextOrButton>
        <Button onPress={onAddFace}>Draw the face it is on</Button>
      </div>
    </div>
  )
}
