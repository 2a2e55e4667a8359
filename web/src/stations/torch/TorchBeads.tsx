import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { Button } from '../../ui/Button'
import { BeadStrip } from './BeadStrip'
import { OnTheMap } from './OnTheMap'

export interface TorchBeadsProps {
  order: NonNullable<Schemas['TorchPlan']['beads']>
  /** The one that is next. */
  upcoming: Schemas['NextBead']
  done: number
  planned: number
  /** Laid and not with the server yet. */
  unsent: number
  /** Nobody is told how long to wait. */
  alone: boolean
  /** Several of them are done; nothing where one is said after the other. */
  onAtOnce?: (() => void) | undefined
}

/** The next bead: where it goes, what comes before it, how far the seam is. */
export function TorchBeads(props: TorchBeadsProps): ReactNode {
  const { order, upcoming, done, planned, unsent, alone, onAtOnce } = props
  return (
    <section
      aria-label="The beads"
      className="bench:grid bench:grid-cols-[minmax(0,1fr)_auto] bench:items-start bench:gap-x-5"
    >
      <div>
        <h2 className="text-[26px] leading-8" data-testid="torch-piece">
          {upcoming.words}
        </h2>
        {!alone && upcoming.before !== '' && (
          <p
            className="border-l-[3px] border-chalk pl-3 text-[20px] leading-7 font-semibold"
            data-testid="torch-before"
          >
            {upcoming.before}
          </p>
        )}
        {order.seams
          .filter((seam) => seam.crack === upcoming.at.crack)
          .map((seam) => (
            <BeadStrip key={seam.crack} seam={seam} next={upcoming.number} />
          ))}
        <div className="flex flex-wrap items-center gap-x-3">
          <p className="text-[17px]">
            {done} of {planned} done. {!alone && order.waits_words}
            {unsent > 0 && <span className="text-ash"> {unsent} waiting for the server.</span>}
          </p>
          {onAtOnce !== undefined && <Button onPress={onAtOnce}>Several are done</Button>}
        </div>
      </div>
      <OnTheMap bead={upcoming} />
    </section>
  )
}
