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

/**
 * Asks again for what may have been kept before, once the server is heard: nothing that was seen earlier stands for what is.
 * What was worked out for a job and a shop as they stood stays as it came out, and is not worked out twice.
 */
export function askWhatMayDiffer(client: QueryClient): void {
  void client.invalidateQueries({
    predicate: ({ meta, state }) => meta?.['reckoned'] !== true || state.status === 'error',
  })
}

/** Which of the queries a path of the server answers; nothing for what no query asks, as a picture. */
export function askedAt(path: string): readonly string[] | undefined {
  const [, api, head, id, more] = path.split('/')
  if (api !== 'api' || head === undefined || more !== undefined) return undefined
  return head === 'jobs' ? (id === undefined ? undefined : ['job', id]) : [head]
}

/** The answer of one address came after what was kept was shown: that one is asked for again, and nothing else. */
export function askOf(client: QueryClient, path: string): void {
  const queryKey = askedAt(path)
  if (queryKey !== undefined) void client.invalidateQueries({ queryKey })
}
