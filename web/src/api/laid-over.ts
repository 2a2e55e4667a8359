/** What is known of a job at some moment: as much as its revision says. */
interface Revised {
  revision: number
}

/**
 * Of an answer and what is known by then the one that stands. What was said meanwhile was answered with the job as it is
 * since; and what was asked for earlier, or kept by this browser, is never laid over what the server said later. An
 * answer of the server to this very question is taken as it is: a shop that was put back from a copy knows less than
 * before.
 */
export function laidOver<T extends Revised>(
  fresh: T,
  known: { asked: T | undefined; since: T | undefined },
  earlier: boolean,
): T {
  const { asked, since } = known
  if (since === undefined || since.revision <= fresh.revision) return fresh
  return earlier || since.revision !== asked?.revision ? since : fresh
}
