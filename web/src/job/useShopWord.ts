import { useMutation, useQueryClient, type UseMutationResult } from '@tanstack/react-query'
import { api, dataOf, type Schemas } from '../api/client'
import { device } from '../api/queue/device'
import { newId } from '../api/queue/new-id'
import { sender } from '../api/queue/outbox'
import { shopQuery } from '../api/queries'

export interface ShopWordSaid {
  change: Schemas['ShopWord']
  /** The revision that it replaces, as last seen. */
  base?: number
}

/** Says something of the shop: a setting, or that the last word from here is taken back or put back. */
export function useShopWord(): UseMutationResult<Schemas['ShopView'], Error, ShopWordSaid> {
  const queryClient = useQueryClient()
  return useMutation({
    mutationFn: async ({ change, base }: ShopWordSaid) => {
      const body = { id: newId(), who: device.said(), sender, change, base: base ?? null }
      return dataOf('ShopView', await api.POST('/api/shop', { body }))
    },
    onSuccess: (view) => queryClient.setQueryData(shopQuery().queryKey, view),
  })
}
