import type { Schemas } from '../../api/client'
import type { Waiting } from '../../api/queue/outbox'

/** The beads are begun with: before that it is on its way up, and nothing rings. */
export const begun = (torch: Schemas['TorchPlan'] | null | undefined, unsent: number): boolean =>
  torch != null && torch.done + unsent > 0

/** What says whether it is in the heat. */
const HEATS: ReadonlySet<Schemas['Deed']> = new Set(['out_of_heat', 'back_in', 'held_at_joint', 'held_over'])

/** It is out of the heat: as the server has it, or by what still waits for it. */
export function isOut(known: boolean, unsent: readonly Pick<Waiting, 'change'>[]): boolean {
  const said = unsent.flatMap((item) =>
    item.change.kind === 'torch' && item.change.entry.kind === 'did' ? [item.change.entry.what] : [],
  )
  const last = said.findLast((what) => HEATS.has(what))
  return last === undefined ? known : last === 'out_of_heat'
}
