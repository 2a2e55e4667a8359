import type { Live } from '../api/client'

/** Of what was heard of a pad and what the job had when it was asked for, what was read later. */
export function lastRead(heard: Live | null, stood: Live | null | undefined): Live | null {
  if (heard === null || stood == null) return heard ?? stood ?? null
  return stood.minutes > heard.minutes ? stood : heard
}
