import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useCallback } from 'react'
import { api, dataOf } from '../api/client'
import { shopQuery } from '../api/queries'
import { useShop } from '../job/ShopContext'

/** Changes the shop's units to the other system. */
export function useToggleUnits(): () => void {
  const shop = useShop()
  const queryClient = useQueryClient()
  const next = shop.units === 'metric' ? 'imperial' : 'metric'
  const { mutate } = useMutation({
    mutationFn: async (typed: string) =>
      dataOf(
        'ShopView',
        await api.POST('/api/shop', { body: { key: 'shop.units', typed, shown_in: shop.units } }),
      ),
    onSuccess: (view) => queryClient.setQueryData(shopQuery().queryKey, view),
  })
  return useCallback(() => mutate(next), [mutate, next])
}
