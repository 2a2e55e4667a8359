import type { Schemas } from '../../api/client'

/** What the made-up part showed since the last bead or deed: nothing was done about it yet. */
export function shownByPart(log: readonly Schemas['LogEntry'][]): Schemas['Symptom'][] {
  const standing = log.filter((entry) => entry.struck == null)
  const answered = standing.findLastIndex(({ entry }) => entry.kind === 'did')
  const laid = standing.findLastIndex(({ entry }) => entry.kind === 'bead' || entry.kind === 'pin')
  const since = standing.slice(Math.max(answered + 1, laid))
  return [...new Set(since.flatMap(({ entry }) => (entry.kind === 'trouble' ? [entry.seen] : [])))]
}
