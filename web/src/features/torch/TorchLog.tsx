import { useState, type ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { useJob } from '../../job/JobContext'
import { StrikeSheet } from '../../job/StrikeSheet'
import { Button } from '../../ui/Button'

const WORDS: Record<Schemas['TorchEntry']['kind'], string> = {
  reading: 'reading',
  bead: 'bead done',
  peened: 'peened',
  reheated: 'reheated',
  note: 'note',
  covered: 'covered',
}

const words = (entry: Schemas['TorchEntry']): string => {
  if (entry.kind === 'reading') return `reading ${entry.typed}`
  if (entry.kind === 'note') return entry.text
  return WORDS[entry.kind]
}

/** The last entries, those still waiting for the server first; a wrong one is struck, not erased. */
export function TorchLog(): ReactNode {
  const { view, waiting, say } = useJob()
  const [striking, setStriking] = useState<Schemas['LogEntry'] | null>(null)
  const round = view.job.rounds.at(-1)
  const log = round?.log ?? []
  const unsent = waiting.flatMap((item) =>
    item.change.kind === 'torch' ? [{ id: item.id, entry: item.change.entry }] : [],
  )
  const last = log.findLast((entry) => entry.struck == null)
  const beads = log.some((entry) => entry.struck == null && entry.entry.kind === 'bead')
  return (
    <section aria-label="Torch log" className="text-[16px]">
      <ol>
        {unsent.toReversed().map((item) => (
          <li
            key={item.id}
            className="flex min-h-9 items-center justify-between border-b border-dashed border-dim"
          >
            <span>{words(item.entry)}</span>
            <span className="text-ash">waiting</span>
          </li>
        ))}
        {log
          .toReversed()
          .slice(0, 4)
          .map((entry) => (
            <li key={entry.fact} className="flex min-h-9 items-center justify-between border-b border-rule">
              <span>
                {entry.struck == null ? words(entry.entry) : <s className="text-ash">{words(entry.entry)}</s>}
              </span>
              <span className="text-ash">{entry.at}</span>
            </li>
          ))}
      </ol>
      <div className="mt-2 flex gap-2">
        {last !== undefined && (
          <Button onPress={() => setStriking(last)} label="Strike the last entry">
            Strike the last
          </Button>
        )}
        {!beads && unsent.length === 0 && round?.lit != null && (
          <Button onPress={() => say({ kind: 'cancel_light' })}>Cancel the lighting</Button>
        )}
      </div>
      <StrikeSheet
        target={striking?.fact ?? null}
        what={striking === null ? '' : words(striking.entry)}
        onClose={() => setStriking(null)}
      />
    </section>
  )
}
