import { useState, type ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { useJob } from '../../job/JobContext'
import { Button } from '../../ui/Button'

/** Which pin goes in now; and that its drill skates: the rest is planned round the hard spot. */
export function NextPin({ pin }: { pin: Schemas['NextPin'] }): ReactNode {
  const { say } = useJob()
  const [skated, setSkated] = useState('')
  const skates = () => {
    setSkated(pin.place)
    const spot = say({ kind: 'add_hard_spot', spot: pin.place })
    if (pin.face == null || pin.at == null) return
    const { x_mm, y_mm } = pin.at
    const shape = { kind: 'circle' as const, x_mm, y_mm, radius_mm: pin.across_mm / 2 }
    say({ kind: 'draw', drawn: [{ mark: spot, face: pin.face, shape }] })
  }
  return (
    <section aria-label="The next pin" className="flex flex-col gap-2 border-l-[3px] border-scribe pl-3">
      <p className="text-[19px] leading-6" data-testid="next-pin">
        {pin.words}
      </p>
      {skated !== '' && (
        <p role="status" className="text-ash">
          Hard at {skated}: it is on the map. Cut the spot out and cross it out there, or go on round it.
        </p>
      )}
      <div>
        <Button large onPress={skates}>
          It skates here
        </Button>
      </div>
    </section>
  )
}
