import type { ReactNode } from 'react'
import { Link } from 'react-router'
import type { Schemas } from '../../api/client'

/** Cases in hand and cases that are over, the last begun first. */
export function Cases({ cases }: { cases: readonly Schemas['RackLine'][] }): ReactNode {
  if (cases.length === 0) return null
  return (
    <section aria-label="Cases">
      <h2 className="words text-[28px] leading-9">Cases</h2>
      <ul>
        {cases.map((line) => {
          const end = line.practice?.ended ?? null
          return (
            <li key={line.id} className="border-b border-dashed border-scribe">
              <Link
                to={end === null ? `/jobs/${line.id}/part` : `/jobs/${line.id}/hand-over`}
                className="block min-h-11 py-1.5"
              >
                <b>{line.name}</b>{' '}
                <span className="text-ash">
                  {line.practice?.level === 'alone' ? 'alone' : 'with the plan'}
                </span>
                <span className="block">
                  {end === null ? `In hand: ${line.standing.next.verb}` : `${end.headline} ${end.of_100}.`}
                </span>
              </Link>
            </li>
          )
        })}
      </ul>
    </section>
  )
}
