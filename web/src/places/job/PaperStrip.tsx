import type { ReactNode } from 'react'
import { useJob } from '../../job/JobContext'
import { useShop } from '../../job/ShopContext'
import { stepKey } from '../../job/step-key'
import { PaperHead } from './PaperHead'

/** Boxes that one page takes. */
const BOXES_MOST = 96

/** The bench strip: boxes to be filled in by pencil where no screen can stand. */
export function PaperStrip(): ReactNode {
  const { view } = useJob()
  const { units } = useShop()
  const { plan } = view
  const pins = plan.methods.sets_pins
  const planned = pins ? (plan.prep?.pins ?? 0) : (plan.prep?.beads ?? 0)
  const boxes = Math.min(planned, BOXES_MOST)
  const target = plan.figures.find((figure) => figure.id === 'heat.target')
  const window = target === undefined ? '' : Object.values(target.shown).join(' ').trim()
  const heated = plan.heat != null && !plan.heat.cold
  const unit = units === 'imperial' ? '°F' : '°C'
  const peens = !pins && plan.torch?.piece === 'bead'
  return (
    <article className="paper-strip only-print" aria-label="Bench strip">
      <PaperHead what="Bench strip" />
      <div className="grid grid-cols-3 gap-x-6 gap-y-3 py-3">
        {heated && <Blank name="Lit at" />}
        {heated && <Blank name={`Warm enough (${window}) at`} />}
        {heated && <Blank name={`Read at the ${plan.heat?.read_at ?? ''}, ${unit}`} />}
      </div>
      {plan.prep != null && plan.prep.work.length > 0 && (
        <ol className="columns-2 gap-x-6 pb-2 text-[12px] leading-[15px]">
          {plan.prep.work.map((line) => (
            <li key={stepKey(line.step)} className="flex break-inside-avoid gap-2 py-[3px]">
              <span className="mt-px size-[13px] shrink-0 border border-scribe text-center text-[11px] leading-[11px]">
                {line.done ? '✓' : ''}
              </span>
              <span>
                <b>{[line.word, ...line.settings].join(', ')}.</b> {line.sentence}
              </span>
            </li>
          ))}
        </ol>
      )}
      {boxes === 0 ? (
        <p>Nothing to lay is planned yet.</p>
      ) : (
        <>
          <p className="pb-1">
            <b>
              {planned} {pins ? 'pins' : 'beads'}
              {plan.prep != null && plan.prep.filler !== '' && `, ${plan.prep.filler}`}.
            </b>{' '}
            {peens
              ? `Write the ${unit} before each one; tick it when it is peened.`
              : 'Tick each one when it is done.'}
          </p>
          <ol className="grid grid-cols-12 gap-1">
            {Array.from({ length: boxes }, (_, at) => (
              <li key={at} className="h-[52px] border border-scribe p-[2px] text-[11px] leading-3">
                {at + 1}
                <span className="float-right size-[14px] border border-scribe" />
              </li>
            ))}
          </ol>
          {planned > boxes && <p className="pt-1">From {boxes + 1} on: on the back.</p>}
        </>
      )}
      <div className="grid grid-cols-3 gap-x-6 gap-y-3 py-3">
        {heated && <Blank name="Covered at" />}
        {heated && <Blank name="Unwrapped at" />}
        {heated && <Blank name={`Read then, ${unit}`} />}
        <Blank name="Who" />
        <Blank name="Date" />
        <Blank name="Notes" />
      </div>
    </article>
  )
}

const Blank = ({ name }: { name: string }): ReactNode => (
  <p className="border-b border-chalk pb-5 text-[12px]">{name}</p>
)
