import type { QueryClient } from '@tanstack/react-query'

/**
 * Asks for everything that is shown or kept ready once more. What is on its way is asked for again when it has come: it was sent
 * before there was a worker to keep it.
 */
export function askAgain(client: QueryClient): void {
  const again = (queryKey: readonly unknown[]): void => {
    void client.invalidateQueries({
      queryKey,
      exact: true,
      predicate: ({ state }) => state.status === 'success',
      // What is only kept ready, as a blank job, as well.
      refetchType: 'all',
    })
  }
  for (const { queryKey, state, promise } of client.getQueryCache().getAll()) {
    if (state.fetchStatus !== 'fetching' || promise === undefined) again(queryKey)
    else
      void promise.then(
        () => again(queryKey),
        () => undefined,
      )
  }
}
