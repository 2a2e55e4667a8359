import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { Field } from '../../job/Field'
import { KeptBySeams } from '../../job/KeptBySeams'
import { Proofs } from '../../job/Proofs'
import { SizeStrip } from '../../job/SizeStrip'

export interface SizesProps {
  sizes: readonly Schemas['SizePlan'][]
  /** It is cold, and can be read. */
  cold: boolean
}

/** What has to fit, read again: what moved, what is left to take off, and who takes it off. */
export function Sizes({ sizes, cold }: SizesProps): ReactNode {
  if (sizes.length === 0) return null
  return (
    <section aria-label="Sizes" className="flex flex-col gap-3 border-t border-scribe pt-2">
      <h2 className="text-[24px] leading-7">What has to fit</h2>
      {sizes.map((it) => (
        <div key={it.mark} data-size={it.mark} className="flex flex-col gap-2 border-b border-rule pb-3">
          <p className="flex flex-wrap items-baseline gap-x-3">
            <b className="inline-block first-letter:uppercase">{it.name}</b>
            <span className="text-ash">{it.words}</span>
            {it.verdict !== '' && (
              <span className={it.within === false ? 'font-semibold' : ''}>{it.verdict}</span>
            )}
          </p>
          <SizeStrip size={it} />
          <KeptBySeams of={it.mark} />
          <Proofs of={it.mark} what={it.name} />
          {it.to_do !== '' && <p className="border-l-[3px] border-chalk pl-3">{it.to_do}</p>}
          {cold ? (
            <div className="grid grid-cols-[1fr_1fr_2fr] items-end gap-2 max-bench:grid-cols-2">
              <Field name={`mark.${it.mark}.cold`} />
              <Field name={`mark.${it.mark}.after`} />
              <Field name={`mark.${it.mark}.by`} folded />
            </div>
          ) : (
            <p className="text-ash">Read it again when it is cold: warm iron is larger.</p>
          )}
        </div>
      ))}
    </section>
  )
}
