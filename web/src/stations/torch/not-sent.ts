import type { Schemas } from '../../api/client'
import type { Waiting } from '../../api/queue/outbox'

/** The beads are begun with: before that it is on its way up, and nothing rings. */
export const begun = (torch: Schemas['TorchPlan'] | null | undefined, unsent: number): boolean =>
  torch != null && torch.done + unsent > 0

/** A seam is being filled in one flow: as the server has it, or by what still waits for it. */
export function isFlowing(known: boolean, unsent: readonly Pick<Waiting, 'change'>[]): boolean {
  const said = unsent.flatMap(({ change }) => {
    if (change.kind !== 'torch') return []
    if (change.entry.kind === 'did') return change.entry.what === 'flow_begun' ? [true] : []
    return change.entry.kind === 'bead' ? [false] : []
  })
  return said.at(-1) ?? known
}

/** Pieces that are laid or set by what waits for the server. */
export const piecesOf = (unsent: readonly Pick<Waiting, 'change'>[]): number =>
  unsent.reduce((sum, { change }) => {
    const entry = change.kind === 'torch' ? change.entry : undefined
    if (entry?.kind === 'beads') return sum + entry.at.length
    return sum + (entry?.kind === 'bead' || entry?.kind === 'pin' ? 1 : 0)
  }, 0)

/** What says whether it is in the heat. */
const HEATS: ReadonlySet<Schemas['Deed']> = new Set([
  'out_of_heat',
  'back_in',
  'held_at_joint',
  'held_over',
  'flow_begun',
])

/** It is out of the heat: as the server has it, or by what still waits for it. */
export function isOut(known: boolean, unsent: readonly Pick<Waiting, 'change'>[]): boolean {
  const said = unsent.flatMap((item) =>
    item.change.kind === 'torch' && item.change.entry.kind === 'did' ? [item.change.entry.what] : [],
  )
  const last = said.findLast((what) => HEATS.has(what))
  return last === undefined ? known : last === 'out_of_heat'
}
