import { useState, type ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { torchSaid } from '../../api/queue/torch-said'
import { Doubted } from '../../job/Doubted'
import { useJob } from '../../job/JobContext'
import { LoggerFile } from '../../job/LoggerFile'
import { Proofs } from '../../job/Proofs'
import { StrikeSheet } from '../../job/StrikeSheet'
import { Button } from '../../ui/Button'
import { OneCurve } from './OneCurve'
import { pieceDone } from './piece-words'
import { atOnce, byWord, type Word } from './said-at-once'

const wordsOf = (
  entry: Schemas['TorchEntry'],
  piece: string,
  seen: readonly Schemas['TroubleView'][],
): string => {
  if (entry.kind === 'bead' && entry.at == null) return pieceDone(piece).toLowerCase()
  const view = entry.kind === 'trouble' ? seen.find((it) => it.seen === entry.seen) : undefined
  if (entry.kind !== 'trouble' || view === undefined) return torchSaid(entry)
  const cause = view.causes.find((it) => it.id === entry.cause)
  return cause === undefined ? view.words : `${view.words}: ${cause.words}`
}

const LIT_FOR = { bake: 'Bake', tack: 'Tacking', main: 'Heat' } as const
const litFor = (what: Schemas['Lighting'] | undefined): string => LIT_FOR[what ?? 'main']

/** What a picture is worth of. */
const PROVED: ReadonlySet<Schemas['TorchEntry']['kind']> = new Set(['bead', 'pin', 'trouble', 'aligned'])

/** Entries in sight until all are asked for. */
const FEW = 4

/** The last entries, those still waiting for the server first; a wrong one is crossed out, not erased. */
export function TorchLog(): ReactNode {
  const { view, waiting, say } = useJob()
  const words = (entry: Schemas['TorchEntry']) =>
    wordsOf(entry, view.plan.torch?.piece ?? 'bead', view.plan.torch?.trouble ?? [])
  const told = (word: Word) => atOnce(word) ?? words(word.last.entry)
  const [striking, setStriking] = useState<Word | null>(null)
  const [all, setAll] = useState(false)
  const round = view.job.rounds.at(-1)
  // What was said of the part since it was lit last, whichever round that was.
  const telling = view.job.rounds.findLast((r) => r.lit != null || r.cancelled.length > 0)
  const log = telling?.lit != null ? telling.log : (telling?.cancelled.at(-1)?.log ?? [])
  const before = view.job.rounds.flatMap((r, at) => {
    const lightings = r.cancelled
      .filter((heat) => heat.log.length > 0 && heat.log !== log)
      .map((heat) => ({ words: `${litFor(heat.lit.what)} before, round ${at + 1}`, log: heat.log }))
    const own = r !== telling && r.log.length > 0 ? [{ words: `Round ${at + 1}`, log: r.log }] : []
    return [...lightings, ...own]
  })
  const unsent = waiting.flatMap((item) =>
    item.change.kind === 'torch' ? [{ id: item.id, entry: item.change.entry }] : [],
  )
  const said = byWord(log)
  const beads = log.some(
    (entry) => entry.struck == null && (entry.entry.kind === 'bead' || entry.entry.kind === 'pin'),
  )
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
        {said
          .toReversed()
          .slice(0, all ? said.length : FEW)
          .map((word) => ({ word, entry: word.last, words: told(word) }))
          .map(({ word, entry, words }) => (
            <li key={entry.fact} className="flex min-h-9 flex-wrap items-center gap-x-3 border-b border-rule">
              <span className="min-w-0 grow [overflow-wrap:anywhere]">
                {entry.struck == null ? words : <s className="text-ash">{words}</s>}
              </span>
              <span className="shrink-0 text-ash">
                {entry.who !== '' && `${entry.who}, `}
                {entry.at}
              </span>
              {entry.struck == null && (word.beads.length > 0 || PROVED.has(entry.entry.kind)) && (
                <Proofs of={entry.fact} what={`${words}, ${entry.at}`} />
              )}
              {entry.struck == null ? (
                <button
                  type="button"
                  className="min-h-11 shrink-0 px-2 text-ash underline decoration-dotted"
                  aria-label={`Cross out ${words}, ${entry.at}`}
                  onClick={() => setStriking(word)}
                >
                  Cross out
                </button>
              ) : (
                <span className="w-[78px] shrink-0" />
              )}
              {entry.struck == null && (
                <div className="basis-full">
                  <Doubted entry={entry} />
                </div>
              )}
            </li>
          ))}
      </ol>
      <div className="mt-2 flex flex-wrap gap-2">
        {said.length > FEW && (
          <Button onPress={() => setAll(!all)}>{all ? 'The last ones' : `All ${said.length}`}</Button>
        )}
        {!beads && unsent.length === 0 && round?.lit?.what === 'main' && (
          <Button onPress={() => say({ kind: 'cancel_light' })}>Cancel the lighting</Button>
        )}
        <LoggerFile />
      </div>
      {(telling?.lit?.without?.length ?? 0) > 0 && (
        <p className="mt-2 text-ash">Lit with these not ticked: {telling?.lit?.without?.join('; ')}.</p>
      )}
      {telling !== undefined && <OneCurve round={telling} wordsOf={litFor} now={view.now_ms} />}
      {before.map((earlier, at) => (
        <details key={at} className="mt-2">
          <summary className="flex min-h-11 cursor-pointer items-center text-ash">
            {earlier.words}: {byWord(earlier.log.filter((e) => e.struck == null)).length} entries
          </summary>
          <ol>
            {byWord(earlier.log)
              .filter((word) => word.last.struck == null)
              .map((word) => (
                <li
                  key={word.last.fact}
                  className="flex min-h-9 items-center justify-between border-b border-rule"
                >
                  <span>{told(word)}</span>
                  <span className="text-ash">{word.last.at}</span>
                </li>
              ))}
          </ol>
        </details>
      ))}
      <StrikeSheet
        target={striking?.last.fact ?? null}
        what={striking === null ? '' : told(striking)}
        onClose={() => setStriking(null)}
      />
    </section>
  )
}
