import { createContext, use } from 'react'
import type { Schemas } from '../api/client'
import type { Theme } from '../quantity/heat-colour'

/** The shop, and the revision of its settings: what was worked out with others is asked for anew. */
export type Shop = Schemas['Shop'] & {
  revision: number
  /** The thermocouples are simulated. */
  stand_ins: boolean
  /** The one job at which this device helps; null where it may do everything. */
  helps: string | null
}

export const ShopContext = createContext<Shop | null>(null)

/** The shop, told in the units of this device: its zone, its gear. */
export function useShop(): Shop {
  const shop = use(ShopContext)
  if (shop === null) throw new Error('outside the shop')
  return shop
}

export const themeOf = (shop: Shop): Theme => (shop.theme === 'daylight' ? 'daylight' : 'shop')
