import { useCallback } from 'react'
import { useShop } from '../job/ShopContext'
import { useShopWord } from '../job/useShopWord'

/** Changes the shop's units to the other system. */
export function useToggleUnits(): () => void {
  const { units } = useShop()
  const next = units === 'metric' ? 'imperial' : 'metric'
  const { mutate } = useShopWord()
  return useCallback(
    () => mutate({ change: { kind: 'set', key: 'shop.units', typed: next, shown_in: units } }),
    [mutate, next, units],
  )
}
