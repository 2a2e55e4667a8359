import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'

/** What has to be bought, as it goes along to the counter. */
export function BuyingList({ buying }: { buying: readonly Schemas['Buy'][] }): ReactNode {
  return (
    <ul>
      {buying.map((buy) => (
        <li key={`${buy.kind} ${buy.size_mm ?? ''}`} className="flex gap-3 border-b border-rule py-2">
          <span aria-hidden className="mt-1 h-4 w-4 shrink-0 border-[1.5px] border-chalk" />
          <span className="min-w-0 grow">
            <b>{buy.amount_words}</b> {buy.what}
            <span className="block small text-ash">
              {buy.by_words === '' ? '' : `by ${buy.by_words}, `}for {buy.jobs.join(' and ')}
            </span>
          </span>
          <span className="shrink-0">
            {buy.price_words ?? <span className="small text-ash">price not known</span>}
          </span>
        </li>
      ))}
    </ul>
  )
}
