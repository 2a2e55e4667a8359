import { useMutation, useQueryClient, type UseMutationResult } from '@tanstack/react-query'
import { api, Refused, type UnitSystem } from '../api/client'
import { shopQuery } from '../api/queries'

/** The units of this device, whatever others show. */
export function useUnits(): UseMutationResult<void, Error, UnitSystem> {
  const queryClient = useQueryClient()
  return useMutation({
    mutationFn: async (units: UnitSystem) => {
      const { response } = await api.POST('/api/units', { body: { units } })
      if (!response.ok) throw new Refused(response.status, [])
    },
    // What else is shown is asked for anew once the shop is told in them.
    onSuccess: () => queryClient.invalidateQueries({ queryKey: shopQuery().queryKey }),
  })
}
