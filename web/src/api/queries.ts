import { QueryClient, queryOptions } from '@tanstack/react-query'
import { api, dataOf, Refused } from './client'

export const queryClient = new QueryClient({
  defaultOptions: {
    queries: {
      retry: (count, error) => !(error instanceof Refused) && count < 2,
      staleTime: 1_000,
      networkMode: 'always',
    },
    mutations: { networkMode: 'always' },
  },
})

export const jobQuery = (id: string) =>
  queryOptions({
    queryKey: ['job', id],
    queryFn: async () => dataOf('JobView', await api.GET('/api/jobs/{id}', { params: { path: { id } } })),
  })

export const rackQuery = (away: boolean, find: string) =>
  queryOptions({
    queryKey: ['rack', away, find],
    queryFn: async () => dataOf('Rack', await api.GET('/api/rack', { params: { query: { away, find } } })),
    refetchInterval: 5_000,
  })

export const shopQuery = () =>
  queryOptions({
    queryKey: ['shop'],
    queryFn: async () => dataOf('ShopView', await api.GET('/api/shop')),
    staleTime: 60_000,
  })

export const historyQuery = (id: string, revision: number) =>
  queryOptions({
    queryKey: ['history', id, revision],
    queryFn: async () =>
      dataOf('History', await api.GET('/api/jobs/{id}/history', { params: { path: { id } } })),
  })
