import { useCallback } from 'react'
import { useShop } from '../job/ShopContext'
import { useUnits } from '../job/useUnits'

/** Changes the units of this device to the other system. */
export function useToggleUnits(): () => void {
  const { units } = useShop()
  const next = units === 'metric' ? 'imperial' : 'metric'
  const { mutate } = useUnits()
  return useCallback(() => mutate(next), [mutate, next])
}
