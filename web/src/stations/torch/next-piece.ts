import type { Schemas } from '../../api/client'
import type { Waiting } from '../../api/queue/outbox'
import { isFlowing, piecesOf } from './not-sent'

type Torch = Schemas['TorchPlan']

/** What is said next of the work, and what it is about. */
export interface NextPiece {
  entry: Schemas['TorchEntry']
  /** Pieces that are said and not with the server yet. */
  laid: number
  /** A seam is begun with it that is filled in one flow. */
  begins: boolean
  nextPin: Schemas['NextPin'] | null
  upcoming: Schemas['NextBead'] | undefined
}

/** The next pin, bead or seam: what waits for the server was meant for those before it. */
export function nextPiece(
  torch: Torch | null | undefined,
  unsent: readonly Pick<Waiting, 'change'>[],
): NextPiece {
  const laid = piecesOf(unsent)
  // The pin that is next goes in under its number.
  const nextPin = laid === 0 ? (torch?.next_pin ?? null) : null
  const upcoming = torch?.beads?.ahead[laid]
  const flow = torch?.flow ?? null
  const begins = flow !== null && !isFlowing(flow.begun, unsent)
  const said = (): Schemas['TorchEntry'] => {
    if (begins) return { kind: 'did', what: 'flow_begun' }
    if (nextPin !== null) return { kind: 'pin', crack: nextPin.crack, number: nextPin.number }
    return upcoming === undefined ? { kind: 'bead' } : { kind: 'bead', at: upcoming.at }
  }
  return { entry: said(), laid, begins, nextPin, upcoming }
}
