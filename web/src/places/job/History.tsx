import { useQuery } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import { historyQuery } from '../../api/queries'
import { useJob } from '../../job/JobContext'
import { useShop } from '../../job/ShopContext'
import { clock } from '../../quantity/show'

/** Everything that was said of the job, the last first. */
export function History(): ReactNode {
  const { view } = useJob()
  const shop = useShop()
  const history = useQuery(historyQuery(view.id, view.revision, shop.revision))
  if (history.data === undefined) return null
  const { facts, told } = history.data
  return (
    <section aria-label="History" className="mt-5">
      <h3 className="mb-1 text-[22px]">History</h3>
      <ol>
        {facts
          .map((fact, at) => (
            <li
              key={fact.id}
              className="grid grid-cols-[116px_1fr] gap-2 border-b border-rule py-1.5 first:border-0"
            >
              <span className="text-ash">{clock(fact.at_server_ms, shop, view.now_ms)}</span>
              <span className="min-w-0 [overflow-wrap:anywhere]">
                {told[at]}
                {fact.who !== '' && <span className="text-ash">, {fact.who}</span>}
              </span>
            </li>
          ))
          .toReversed()}
      </ol>
    </section>
  )
}
