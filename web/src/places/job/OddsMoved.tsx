import { keepPreviousData, useQuery } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import { oddsMovedQuery } from '../../api/queries'
import { useJob } from '../../job/JobContext'
import { useShop } from '../../job/ShopContext'

/** What moved the odds last, and by how much. */
export function OddsMoved(): ReactNode {
  const { view } = useJob()
  const { revision, units } = useShop()
  const { data } = useQuery({
    ...oddsMovedQuery(view.id, view.revision, revision, units),
    placeholderData: keepPreviousData,
  })
  if (data?.moved == null) return null
  return (
    <span className="block" data-testid="odds-moved">
      {data.moved.moves} by: {data.moved.said}
    </span>
  )
}
