import { useQuery } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import { seamPullQuery } from '../api/queries'
import { useJob } from './JobContext'
import { useShop } from './ShopContext'

/** What the seams of the drawn face do to a distance that has to be kept, foreseen. */
export function KeptBySeams({ of }: { of: string }): ReactNode {
  const { view, typed } = useJob()
  const { revision, units } = useShop()
  const asked = useQuery({
    ...seamPullQuery(view.id, view.revision, revision, units),
    enabled: typed(`mark.${of}.kind`) === 'distance' && view.plan.torch?.beads != null,
  })
  const words = asked.data?.pulls?.kept.find((it) => it.mark === of)?.words
  return words === undefined ? null : <p className="text-ash">{words}</p>
}
