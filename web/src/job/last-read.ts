import type { Live } from '../api/client'

/** What was heard of a pad, and the revision of the job as this page then knew it. */
export interface Heard {
  live: Live
  revision: number
}

/**
 * Of what was heard of a pad and what the job had when it was asked for, what was read later. Once something was said of
 * the job since, what the job has: a lighting may be cancelled, a pad may have slipped, and what was heard is none of it.
 */
export function lastRead(
  heard: Heard | null,
  job: { revision: number; live?: Live | null | undefined } | undefined,
): Live | null {
  const stood = job?.live ?? null
  if (heard === null || job === undefined) return heard?.live ?? stood
  if (job.revision > heard.revision) return stood
  return stood !== null && stood.minutes > heard.live.minutes ? stood : heard.live
}
