import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { Field } from '../../job/Field'
import { useJob } from '../../job/JobContext'
import { Drilled } from './Drilled'
import { EndFigures } from './EndFigures'
import { capital } from '../../ui/capital'

/** What is known of one crack, its ends and its holes. */
export function OneCrack({ crack }: { crack: Schemas['CrackPlan'] }): ReactNode {
  const { typed } = useJob()
  const name = <F extends Schemas['CrackField']>(end: F) => `crack.${crack.id}.${end}` as const
  const [a, b] = crack.ends
  // What an end runs into is seen on the map: only a free one is asked.
  const asked = (end: Schemas['EndPlan'] | undefined, said: string) =>
    !crack.on_map || end?.kind == null || ['tip', 'hidden', said].includes(end.kind)
  return (
    <section aria-label={`Crack ${crack.letter}`} className="border-t border-scribe pt-2">
      <div className="grid grid-cols-[52px_1fr_1fr_1.2fr_1.5fr_1.5fr] items-start gap-2 max-bench:grid-cols-2">
        <h2 className="pt-5 text-[40px] leading-[48px]">
          <span className="sr-only">Crack </span>
          {crack.letter}
        </h2>
        {crack.on_map ? (
          <p>
            <span className="label mb-1 block">On the map</span>
            <b className="block py-3 text-[19px]">{crack.words}</b>
          </p>
        ) : (
          <Field name={name('length')} />
        )}
        <Field
          name={name('wall')}
          label="Wall"
          placeholder={crack.wall_guessed ? undefined : crack.wall_words}
        />
        {(!crack.full_break || typed(name('found_by')) !== '') && <Field name={name('found_by')} folded />}
        {asked(a, typed(name('end_a'))) && <Field name={name('end_a')} label={endLabel(a)} folded />}
        {asked(b, typed(name('end_b'))) && <Field name={name('end_b')} label={endLabel(b)} folded />}
      </div>
      <div className="mt-2 grid grid-cols-3 items-end gap-2 max-bench:grid-cols-1">
        {crack.full_break && <Field name={name('piece')} folded />}
        {crack.full_break && <Field name={name('lap')} />}
        <Field name={name('edge')} folded placeholder="clean iron" />
        {typed(name('edge')) === 'burnt' && <Field name={name('burnt_out')} />}
        {typed('part.keep_off') !== '' && <Field name={name('behind')} folded />}
        {crack.ends.some((end) => end.stop_hole?.well_past_mm != null) && (
          <Field name={name('tip_way')} folded placeholder="well past it, groove into the hole" />
        )}
        {crack.on_map && <Field name={name('becomes')} folded placeholder="repaired" />}
        {crack.on_map && crack.becomes !== 'repair' && <Field name={name('becomes_why')} />}
        {crack.becomes === 'leave' && <Field name={name('look_again')} placeholder="in 3 months" />}
        {crack.becomes === 'leave' && (
          <Field name={name('grown_a')} label={`Grown since, ${a?.name ?? ''} end`} placeholder="0" />
        )}
        {crack.becomes === 'leave' && (
          <Field name={name('grown_b')} label={`Grown since, ${b?.name ?? ''} end`} placeholder="0" />
        )}
        {crack.on_map && <Field name={name('witness')} folded placeholder="left side" />}
        {a?.run_out != null && <RunOut name={name('run_out_a')} end={a} />}
        {b?.run_out != null && <RunOut name={name('run_out_b')} end={b} />}
      </div>
      <EndFigures crack={crack} />
      <Drilled crack={crack} />
    </section>
  )
}

const endLabel = (end: Schemas['EndPlan'] | undefined): string => {
  const name = end?.name ?? ''
  return `${capital(name)} end`
}

interface RunOutProps {
  name: `crack.${string}.${'run_out_a' | 'run_out_b'}`
  end: Schemas['EndPlan']
}

/** A hole that would break out: what is better, and whether it is done so. */
function RunOut({ name, end }: RunOutProps): ReactNode {
  return (
    <div className="col-span-full grid grid-cols-[1fr_220px] items-end gap-3 border-l-[3px] border-chalk pl-3 max-bench:grid-cols-1">
      <p>{end.run_out?.sentence}</p>
      <Field name={name} label={`Run out, ${end.name} end`} />
    </div>
  )
}
