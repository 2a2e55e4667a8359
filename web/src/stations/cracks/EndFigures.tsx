import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { Fig } from '../../job/Fig'
import { capital } from '../../ui/capital'

export interface EndFiguresProps {
  crack: Schemas['CrackPlan']
}

/** What to drill at each end, or why nothing. */
export function EndFigures({ crack }: EndFiguresProps): ReactNode {
  return (
    <div className="mt-3 grid grid-cols-2 gap-8 max-bench:grid-cols-1">
      {crack.ends.map((end) => (
        <End key={end.side} end={end} id={crack.id} />
      ))}
    </div>
  )
}

function End({ end, id }: { end: Schemas['EndPlan']; id: string }): ReactNode {
  const at = (what: string) => `cracks.${id}.${end.side}.${what}`
  return (
    <section aria-label={`${end.name} end`}>
      <h3 className="text-[20px]">{`${capital(end.name)} end`}</h3>
      {end.stop_hole != null && (
        <dl className="mt-1 grid grid-cols-[1fr_auto_1fr_auto] items-center gap-x-4 gap-y-1">
          <dt className="label">Drill</dt>
          <dd>
            <Fig id={at('drill')} side="top" />
          </dd>
          <dt className="label">Pilot</dt>
          <dd>
            <Fig id={at('pilot')} side="top" otherwise="none" />
          </dd>
          <dt className="label">Centre past the tip</dt>
          <dd>
            <Fig id={at('offset')} side="top" />
          </dd>
          <dt className="label">Spindle</dt>
          <dd>
            <Fig id={at('rpm')} side="top" />
          </dd>
          <dt className="label">Runs past the hole</dt>
          <dd>
            <Fig id={at('run_past')} side="top" />
          </dd>
          <dt className="label">Left of the tip’s pull</dt>
          <dd>
            <Fig id={at('left')} side="top" otherwise="not known" />
          </dd>
        </dl>
      )}
      <p
        className={`mt-1 first-letter:uppercase ${end.stop_hole?.find_tip_better === true || end.blind ? 'font-semibold' : 'text-ash'}`}
      >
        {end.sentence}
      </p>
    </section>
  )
}
