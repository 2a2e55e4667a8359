import type { ReactNode } from 'react'
import { Button } from '../../../ui/Button'

export interface BeginsProps {
  /** It is said that the flame begins where it is shown. */
  said: boolean
  /** What is pressed next is where it is swept on to. */
  along: boolean
  /** It is swept along a line: that is tried, and not said. */
  line: boolean
  onPut: () => void
  onOpen: () => void
  onAlong: (along: boolean) => void
}

/** Where the flame begins, and whether it is held there or swept along a line. */
export function Begins({ said, along, line, onPut, onOpen, onAlong }: BeginsProps): ReactNode {
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-2 pt-2">
      {!line && !said && <Button onPress={onPut}>Begin here</Button>}
      {!line && said && (
        <span className="contents" data-testid="begins">
          <b>Here it begins.</b>
          <Button onPress={onOpen}>Leave it open</Button>
        </span>
      )}
      <Button onPress={() => onAlong(!along)}>{along ? 'Held in one place' : 'Swept along a line'}</Button>
      {along && (
        <p className="small text-ash" role="status">
          Press where it goes on to; by keys: Enter at the flame, then the arrows.
        </p>
      )}
    </div>
  )
}
