import { useState, type ReactNode } from 'react'
import type { FieldView } from '../../api/fields'
import { Fig } from '../../job/Fig'
import { Field } from '../../job/Field'
import { useJob } from '../../job/JobContext'
import { Fold } from '../../ui/Fold'
import { Follows } from './Follows'
import { BEFORE_ANSWER, GROUPS, groupOf } from './groups'
import { Neighbours } from './Neighbours'
import { PartSketch } from './PartSketch'
import { GoesOn } from '../../ui/GoesOn'
import { Pictures } from './Pictures'

/** The sheet: what came in, how big it is, what it does, what could go wrong. */
export function PartStation(): ReactNode {
  const { view, field } = useJob()
  const next = view.plan.missing.find((missing) => missing.station === 'part')
  const enough = view.plan.stations[0]?.amount === 'enough'
  const { next: first } = view.standing
  const lock = view.plan.locks.find((candidate) => candidate.station === 'part')
  const sheet = useSheet(first.station === 'part' && first.key !== '' ? first.key : next?.key)
  return (
    <div className="flex min-h-0 grow flex-col">
      <p className="mb-2 border-b border-rule pb-2" data-testid="part-next">
        {lock !== undefined && (
          <>
            <b>{lock.sentence}</b> {lock.unlock}
          </>
        )}
        {enough && lock === undefined && <b>Enough is known of the part. </b>}
        {next !== undefined && lock === undefined && (
          <>
            {enough ? <span className="text-ash">Worth saying too: </span> : <b>Next: </b>}
            <b>{next.what.toLowerCase()}.</b>{' '}
            {!enough && (
              <span className="inline-block text-ash first-letter:uppercase max-bench:hidden">
                {next.why}.
              </span>
            )}
          </>
        )}
      </p>
      <div className="grid min-h-0 grow grid-cols-[300px_minmax(0,1fr)] gap-x-6 overflow-auto px-1 pb-2 -mx-1 max-bench:grid-cols-1 max-bench:overflow-visible">
        <div className="flex flex-col gap-3 max-bench:mb-2">
          <Pictures />
          <div className="max-bench:hidden">
            <Follows besideTheCard />
          </div>
        </div>
        <div>
          {GROUPS.map((group) => (
            <Fold
              key={group.id}
              title={group.title}
              summary={summary((group.summed ?? group.keys).map(field))}
              open={sheet.isOpen(group.id)}
              onOpenChange={(open) => sheet.turn(group.id, open)}
            >
              {FIELDS[group.id]?.()}
            </Fold>
          ))}
          <div className="mt-3 bench:hidden">
            <Follows />
          </div>
        </div>
        <GoesOn />
      </div>
    </div>
  )
}

/** Which parts of the sheet lie open: that with the next thing opens by itself and stays. */
function useSheet(nextKey: string | undefined) {
  const [turned, setTurned] = useState<Record<string, boolean>>({})
  const [reached, setReached] = useState<readonly string[]>([])
  const group = nextKey === undefined ? undefined : groupOf(nextKey)
  if (group !== undefined && !reached.includes(group)) setReached([...reached, group])
  return {
    isOpen: (id: string): boolean => turned[id] ?? reached.includes(id),
    turn: (id: string, open: boolean) => setTurned({ ...turned, [id]: open }),
  }
}

/** What is known of a part of the sheet, in a line. */
function summary(fields: readonly FieldView[]): string {
  const said = fields.flatMap((field) => {
    if (field.typed === '') return []
    if (field.asks_for === 'yes_no') return field.typed === 'yes' ? [field.label.toLowerCase()] : []
    if (field.shown != null)
      return [`${BEFORE_ANSWER[field.key] ?? ''}${field.shown.number} ${field.shown.unit}`.trim()]
    const label = (id: string) => field.choices.find((choice) => choice.id === id)?.label ?? id
    if (field.choices.length === 0) return [field.typed]
    return [(BEFORE_ANSWER[field.key] ?? '') + field.typed.split(',').map(label).join(', ').toLowerCase()]
  })
  return said.length === 0 ? 'not asked yet' : said.join(', ')
}

const pair = 'grid grid-cols-2 gap-2'

const FIELDS: Record<string, () => ReactNode> = {
  what: () => (
    <>
      <div className={pair}>
        <Field name="part.name" placeholder="roaster end plate" />
        <Field name="part.owner" />
      </div>
      <Field name="part.family" columns={3} />
      <Field name="part.era" columns={2} />
    </>
  ),
  hurt: () => <Hurt />,
  size: () => <Size />,
  service: () => (
    <>
      <div className="grid grid-cols-3 gap-2">
        <Field name="part.service_temperature" />
        <Field name="part.service_time" placeholder="8 h" />
        <Field name="part.heat_cycling" label="Heats and cools?" />
      </div>
      <Field name="part.holds" columns={3} />
      <OlderTight />
      <div className="grid grid-cols-[1fr_2fr] items-end gap-2 max-bench:grid-cols-1">
        <Field name="part.pressure" />
        <Field name="part.loads" />
      </div>
    </>
  ),
  state: () => (
    <>
      <Field name="part.oil" />
      <Field name="part.cause" columns={3} />
      <CauseCured />
      <OldFiller />
      <Field name="part.cavity" />
      <Field name="part.coating" />
      <Field name="part.hazards" />
      <Field name="part.place" />
      <Neighbours />
    </>
  ),
  wishes: () => (
    <>
      <Field name="part.life" />
      <div className={pair}>
        <Field name="part.life_wanted" placeholder="2 years" />
        <Field name="part.wanted" placeholder="Friday" />
      </div>
      <Field name="part.machined" />
      <Field name="part.marks" />
      <Field name="part.seen" />
      <div className={pair}>
        <Field name="part.keep_off" placeholder="the bored face" />
        <Field name="part.machined_what" placeholder="bore, two holes" />
        <Field name="part.machining_price" placeholder="60" />
      </div>
      <div className="grid grid-cols-3 gap-2 max-bench:grid-cols-2">
        <Field name="part.replacement_price" placeholder="480" />
        <Field name="part.replacement_wait" placeholder="6 weeks" />
        <Field name="part.downtime" placeholder="120" label="A day standing" />
      </div>
    </>
  ),
}

/** Who could be hurt, and who answers for it where that locks the job. */
function Hurt(): ReactNode {
  const { view, typed } = useJob()
  const locked = view.plan.locks.some((lock) => lock.key.startsWith('part.authority'))
  return (
    <>
      <Field name="part.safety_class" columns={2} />
      {(locked || typed('part.authority') !== '') && (
        <>
          <Field name="part.authority" />
          <Field name="part.authority_is" columns={3} />
          <Field name="part.authority_looked" placeholder="the seam after penetrant" />
          <div className={pair}>
            <Field name="part.authority_reference" />
            <Field name="part.authority_day" />
          </div>
        </>
      )}
      <div className="grid grid-cols-[2fr_1fr] gap-2">
        <Field name="part.hurt" placeholder="whoever stands below" />
        <Field name="part.rpm" placeholder="90" />
      </div>
    </>
  )
}

/** Size, shape and wall; the weight as weighed, or as it follows from them. */
function Size(): ReactNode {
  const { view } = useJob()
  const weight = view.plan.figures.find((figure) => figure.id === 'part.weight')
  const estimated = weight?.certainty === 'guess'
  return (
    <div className="grid grid-cols-[1fr_230px] gap-x-4 gap-y-2.5 max-bench:grid-cols-1">
      <div className="flex flex-col gap-2.5">
        <Field name="part.shape" columns={2} />
        <div className="grid grid-cols-3 gap-2">
          <Field name="part.length" />
          <Field name="part.width" />
          <Field name="part.height" />
        </div>
        <div className={pair}>
          <Field name="part.wall" />
          <Field name="part.mass" />
        </div>
        {estimated && (
          <p data-testid="estimate">
            Estimated <Fig id="part.weight" side="top" />, {view.plan.part.weight_between}. Every time in the
            plan carries that.
          </p>
        )}
      </div>
      <div className="flex flex-col gap-2.5">
        <PartSketch />
        <Field name="part.break_station" placeholder="0 one end, 50 middle" />
        <Field name="part.sides" />
      </div>
    </div>
  )
}

/** Asked until what it holds was: an older job may have it. */
function OlderTight(): ReactNode {
  const { typed } = useJob()
  return typed('part.fluid_tight') !== '' && typed('part.holds') === '' ? (
    <Field name="part.fluid_tight" />
  ) : null
}

/** Of a cause that can be cured it is asked whether it was. */
function CauseCured(): ReactNode {
  const { typed } = useJob()
  const cause = typed('part.cause')
  return cause === '' || cause === 'unknown' ? null : <Field name="part.cause_cured" />
}

/** What an earlier repair left in it. */
function OldFiller(): ReactNode {
  const { typed } = useJob()
  const left = ['bronze', 'other'].includes(typed('part.old_filler'))
  return (
    <>
      <Field name="part.old_filler" columns={3} />
      {left && <Field name="part.old_filler_out" />}
    </>
  )
}
