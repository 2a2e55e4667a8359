import { useState, type ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { Field } from '../../job/Field'
import { useJob } from '../../job/JobContext'
import { useShop } from '../../job/ShopContext'
import { foreseen } from '../../quantity/show'
import { Choice } from '../../ui/Choice'
import { fieldId } from '../../ui/focus'
import { Proof } from './Proof'
import { LookSheet } from './LookSheet'

const VERDICTS = [
  { id: 'ok', label: 'Good' },
  { id: 'not_ok', label: 'Not good' },
]

const WORDS: Readonly<Record<Schemas['CheckState'], string>> = {
  ok: 'good',
  not_ok: 'not good',
  left: 'left, and said so',
  open: 'open',
}

export interface CheckLineRowProps {
  line: Schemas['CheckLine']
  /** It is cold: it can be looked at, and how is said. */
  cold: boolean
  onSay: (verdict: string) => void
}

/** One thing that is looked at: all of it at once, or place by place. */
export function CheckLineRow({ line, cold, onSay }: CheckLineRowProps): ReactNode {
  const shop = useShop()
  const now = useJob().view.now_ms
  const [open, setOpen] = useState<number | null>(null)
  // What was done of a proof is told with what it came to.
  const proved = (line.proof?.done_words ?? '') !== ''
  const place = open === null ? undefined : line.places[open]
  const apart =
    line.places.length > 1 ||
    line.places.some((it) => (it.points_words ?? '') !== '') ||
    line.places.some((it) => it.looks.length > 0 || it.verdict === 'not_ok')
  return (
    <li className="border-b border-rule py-2">
      <div className="flex flex-wrap items-center justify-between gap-3">
        <span className="min-w-[200px] flex-1">
          <b className="text-[17px]">{line.label}</b>
          <span
            className={`block text-ash ${cold && (line.verdict === 'open' || proved) ? '' : 'max-bench:hidden'}`}
          >
            {line.due_ms != null && line.verdict === 'open' && (
              <b className="font-semibold text-chalk">From {foreseen(line.due_ms, shop, now)}. </b>
            )}
            {line.how}
          </span>
        </span>
        <Choice
          id={fieldId(line.key)}
          label={line.label}
          choices={VERDICTS}
          chosen={line.verdict}
          onChoose={onSay}
        />
      </div>
      {cold && line.key === 'check.alignment' && (
        <div className="mt-1 max-w-[260px]">
          <Field name="check.out_of_line" />
        </div>
      )}
      {cold && line.proof != null && line.verdict !== 'ok' && <Proof proof={line.proof} />}
      {cold && apart && (
        <ul className="mt-1 flex flex-col">
          {line.places.map((it, at) => (
            <li key={it.words}>
              <button
                type="button"
                className="flex min-h-11 w-full items-center gap-3 py-1 text-left leading-5"
                data-testid={`place.${line.key}.${it.number}`}
                onClick={() => setOpen(at)}
              >
                <span className="figure w-6 shrink-0 border-[1.5px] border-scribe text-center">
                  {it.number}
                </span>
                <span className="grow">
                  <b className="font-semibold">{it.words}</b>
                  {(it.points_words ?? '') !== '' && it.verdict === 'open' && (
                    <span className="text-ash"> {it.points_words}</span>
                  )}
                  {it.sentence !== '' && <span className="text-ash"> {it.sentence}</span>}
                  {it.sentence === '' && it.verdict === 'not_ok' && (
                    <span className="underline"> What was found?</span>
                  )}
                  {(it.then_words ?? '') !== '' && <span> {it.then_words}.</span>}
                </span>
                <span className={`shrink-0 ${it.verdict === 'not_ok' ? 'font-semibold' : 'text-ash'}`}>
                  {WORDS[it.verdict]}
                </span>
              </button>
            </li>
          ))}
        </ul>
      )}
      {place !== undefined && <LookSheet line={line} place={place} onClose={() => setOpen(null)} />}
    </li>
  )
}
