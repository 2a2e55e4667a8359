import type { ReactNode } from 'react'
import { Link } from 'react-router'
import type { Schemas } from '../../api/client'
import { useJob } from '../../job/JobContext'
import { NewRound } from '../../job/NewRound'
import { pathOf } from '../../job/stations'

export interface RefusedProps {
  lines: readonly Schemas['GateLine'][]
  /** This plan is for one iron that is only supposed. */
  supposed: boolean
}

/** Why it is not lit yet, each with the way to what unlocks it. */
export function Refused({ lines, supposed }: RefusedProps): ReactNode {
  const { view } = useJob()
  return (
    <ul>
      {supposed && (
        <li className="py-1">
          <b>This plan is for one iron that is only supposed.</b> Go back to what it may be first.
        </li>
      )}
      {lines.map((line) => (
        <li
          key={line.sentence}
          className="flex flex-wrap items-center justify-between gap-3 border-b border-rule py-2"
        >
          <p className="min-w-0 grow basis-[300px]">
            <b>{line.sentence}</b>{' '}
            <span className={`text-ash ${line.station === 'torch' ? '' : 'max-bench:hidden'}`}>
              {line.unlock}
            </span>
          </p>
          {line.key === 'new_round' && <NewRound reason={line.sentence} />}
          {line.station !== 'torch' && (
            <Link
              to={`/jobs/${view.id}/${pathOf(line.station)}`}
              state={{ field: line.key }}
              className="flex min-h-11 items-center border-[1.5px] border-scribe px-4 font-semibold"
            >
              {line.verb}
            </Link>
          )}
        </li>
      ))}
    </ul>
  )
}
