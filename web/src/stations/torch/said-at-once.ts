import type { Schemas } from '../../api/client'
import { torchSaid } from '../../api/queue/torch-said'

type Said = Schemas['LogEntry']

/** One word of the log: what was said last of it, and all that stands by it. */
export interface Word {
  last: Said
  beads: readonly Schemas['BeadAt'][]
  peened: boolean
}

/** The log by words: beads that were said at once are one. */
export function byWord(log: readonly Said[]): Word[] {
  const of = new Map<string, Said[]>()
  for (const entry of log) of.set(entry.fact, [...(of.get(entry.fact) ?? []), entry])
  const words = [...of.values()].flatMap((all) => {
    const last = all.at(-1)
    if (last === undefined) return []
    const beads = all.flatMap(({ entry }) => (entry.kind === 'bead' && entry.at != null ? [entry.at] : []))
    return [{ last, beads, peened: all.length > 1 && last.entry.kind === 'peened' }]
  })
  return words.sort((a, b) => log.indexOf(a.last) - log.indexOf(b.last))
}

/** "12 beads done, layers 1 and 2, each peened"; nothing where it is one thing. */
export const atOnce = ({ beads, peened }: Word): string | undefined =>
  beads.length > 1 || peened ? torchSaid({ kind: 'beads', at: [...beads], peened }) : undefined
