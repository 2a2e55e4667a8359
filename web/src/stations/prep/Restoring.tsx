import { useState, type ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { Field } from '../../job/Field'
import { useJob } from '../../job/JobContext'
import { KeptBySeams } from '../../job/KeptBySeams'
import { SizeStrip } from '../../job/SizeStrip'
import { StrikeSheet } from '../../job/StrikeSheet'
import { Button } from '../../ui/Button'
import { focusField } from '../../ui/focus'
import { BetweenHoles } from './BetweenHoles'

export interface RestoringProps {
  bench: Schemas['BenchPlan']
}

/** Metal that is missing, and what has to be as it was. */
export function Restoring({ bench }: RestoringProps): ReactNode {
  const { say } = useJob()
  const [striking, setStriking] = useState<Schemas['SizePlan'] | null>(null)
  const { missing, features, cause } = bench
  return (
    <section aria-label="Restored" className="flex flex-col gap-2 border-t border-scribe pt-2">
      <h2 className="text-[24px] leading-7">To be as it was</h2>
      {cause.map((sentence) => (
        <p key={sentence} className="border-l-[3px] border-chalk pl-3">
          {sentence}
        </p>
      ))}
      {missing.map((it) => (
        <div key={it.mark} className="flex flex-col gap-2 border-b border-rule pb-2">
          <p>
            <b className="inline-block first-letter:uppercase">{it.name}.</b> {it.sentence}
          </p>
          <div className="grid grid-cols-[1fr_1.5fr_1fr_1fr_1.5fr] items-end gap-2 max-bench:grid-cols-2">
            <Field name={`mark.${it.mark}.thickness`} />
            <Field name={`mark.${it.mark}.closed_by`} folded />
            {it.patch != null && (
              <>
                <Field name={`mark.${it.mark}.patch_thickness`} />
                <Field name={`mark.${it.mark}.patch_gap`} />
                <Field name={`mark.${it.mark}.patch_skin`} folded />
              </>
            )}
          </div>
          {it.patch?.cautions.map((caution) => (
            <p key={caution} className="border-l-[3px] border-chalk pl-3 font-semibold">
              {caution}
            </p>
          ))}
          {it.patch != null && <p className="text-ash">{it.patch.words.join(' ')}</p>}
        </div>
      ))}
      {features.map((it) => (
        <div key={it.mark} className="border-b border-rule pb-2" data-feature={it.mark}>
          <p className="flex min-h-11 flex-wrap items-center gap-3">
            <b className="first-letter:uppercase">{it.name}</b>
            <span className="text-ash">{it.words}</span>
            {it.readings.length > 1 && (
              <span className={it.within === false ? 'font-semibold' : ''}>{it.verdict}</span>
            )}
            <span className="ml-auto" />
            <Button label={`Cross out ${it.name}`} onPress={() => setStriking(it)}>
              Cross out
            </Button>
          </p>
          {it.readings.length > 1 && <SizeStrip size={it} />}
          <div className="grid grid-cols-[1fr_1.5fr_repeat(4,1fr)] items-end gap-2 max-bench:grid-cols-2">
            <Field name={`mark.${it.mark}.kind`} folded />
            <Field name={`mark.${it.mark}.datum`} placeholder="left face, hole 1" />
            <Field name={`mark.${it.mark}.nominal`} />
            <Field name={`mark.${it.mark}.tolerance`} />
            <Field name={`mark.${it.mark}.before`} />
            <Field name={`mark.${it.mark}.tacked`} />
          </div>
          <BetweenHoles of={it.mark} />
          <KeptBySeams of={it.mark} />
        </div>
      ))}
      <div>
        <Button onPress={() => focusField(`mark.${say({ kind: 'add_mark', what: 'feature' })}.kind`)}>
          {features.length === 0 ? 'Something that has to fit' : 'Another size'}
        </Button>
      </div>
      <StrikeSheet
        target={striking?.mark ?? null}
        what={striking?.name ?? ''}
        onClose={() => setStriking(null)}
      />
    </section>
  )
}
