import { useQuery } from '@tanstack/react-query'
import type { Schemas } from '../api/client'
import { wayQuery, type PlanStands } from '../api/queries'
import { useJob } from './JobContext'
import { useShop } from './ShopContext'

/** By what the plan on the page stands: what is asked for beside it is asked for by the same. */
export function usePlanStands(): PlanStands {
  const { view, asIf } = useJob()
  const { revision, units } = useShop()
  return { revision: view.revision, readings: view.readings, shop: revision, units, iron: asIf }
}

export interface WayAsked {
  way: Schemas['WayOpened'] | undefined
  /** It was asked for and the server is not reached. */
  lost: boolean
}

/** How a way is weighed and done: asked for when it is opened. */
export function useWay(method: string | undefined): WayAsked {
  const { view } = useJob()
  const asked = useQuery({
    ...wayQuery(view.id, method ?? '', usePlanStands()),
    enabled: method !== undefined,
  })
  return { way: asked.data, lost: asked.isError }
}
