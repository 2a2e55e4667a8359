import type { ReactNode } from 'react'
import { Field } from '../../job/Field'
import { useJob } from '../../job/JobContext'
import { PartSketch } from './PartSketch'

/** The sheet: what came in, how big it is, what it does, what could go wrong. */
export function PartStation(): ReactNode {
  const { view } = useJob()
  const next = view.plan.missing.find((missing) => missing.station === 'part')
  const enough = view.plan.stations[0]?.amount === 'enough'
  const lock = view.plan.locks.find((candidate) => candidate.rule === 'M20')
  return (
    <div className="flex min-h-0 grow flex-col">
      <p className="mb-3 border-b border-rule pb-2" data-testid="part-next">
        {lock !== undefined ? (
          <b>
            {lock.sentence} {lock.unlock}
          </b>
        ) : enough ? (
          <>
            <b>Enough is known of the part.</b>{' '}
            {next !== undefined && (
              <span className="text-ash">
                Worth saying too: {next.what.toLowerCase()}; {next.why}.
              </span>
            )}
          </>
        ) : next === undefined ? null : (
          <>
            <b>Next: {next.what.toLowerCase()}.</b>{' '}
            <span className="inline-block text-ash first-letter:uppercase">{next.why}.</span>
          </>
        )}
      </p>
      <div className="grid min-h-0 grow grid-cols-[minmax(0,1fr)_minmax(0,1fr)_minmax(0,1fr)] gap-x-6 overflow-auto pr-1 pb-2 max-bench:grid-cols-1">
        <Group title="What came in">
          <Field name="part.name" placeholder="roaster end plate" />
          <Field name="part.family" folded />
          <Field name="part.era" folded />
          <Field name="part.safety_class" folded />
          {lock !== undefined || view.fields['part.authority']?.typed !== '' ? (
            <>
              <Field name="part.authority" />
              <Field name="part.authority_reference" />
            </>
          ) : null}
          <Field name="part.owner" />
        </Group>
        <Group title="How big">
          <PartSketch />
          <div className="grid grid-cols-3 gap-2">
            <Field name="part.length" />
            <Field name="part.width" />
            <Field name="part.height" />
          </div>
          <div className="grid grid-cols-2 gap-2">
            <Field name="part.mass" placeholder="12 kg" />
            <Field name="part.wall" placeholder="3/8 in" />
          </div>
          <Field name="part.shape" folded />
          <Field name="part.break_station" placeholder="0 is one end, 50 the middle" />
        </Group>
        <Group title="What it goes through">
          <Field name="part.service_temperature" placeholder="80 C" />
          <div className="grid grid-cols-2 gap-2">
            <Field name="part.heat_cycling" label="Heats, cools?" />
            <Field name="part.fluid_tight" label="Holds fluid?" />
          </div>
          <Field name="part.life_wanted" placeholder="10 years" />
          <Field name="part.oil" folded />
          <Field name="part.sides" />
          <div className="grid grid-cols-[1.4fr_1fr] gap-2">
            <Field name="part.heat_shy" placeholder="bearing shell" />
            <Field name="part.heat_shy_limit" placeholder="120 C" />
          </div>
        </Group>
      </div>
    </div>
  )
}

function Group({ title, children }: { title: string; children: ReactNode }): ReactNode {
  return (
    <section aria-label={title} className="flex flex-col gap-2.5">
      <h2 className="text-[24px] leading-7">{title}</h2>
      {children}
    </section>
  )
}
