import type { Schemas } from '../../api/client'

interface Read {
  minutes: number
  celsius: number
}

/** One lighting as it lies on the curve of its round. */
export interface Session {
  words: string
  atMs: number
  /** Where it begins on the common axis, in minutes. */
  from: number
  points: readonly Read[]
}

type Lighting = Pick<Schemas['Heat'], 'log' | 'readings'> & {
  lit: Pick<Schemas['LitSeen'], 'at_ms' | 'what'>
}

/** Between two sessions nothing is heated: so much of it is shown. */
const BREAK_MIN = 20

/** What was read of a lighting by pad and by hand, in the order of time; not what was crossed out, nor of the joint. */
const read = ({ log, readings }: Lighting): readonly Read[] => {
  const byHand = log.flatMap((entry) =>
    entry.celsius != null && entry.struck == null && entry.at_joint !== true
      ? [{ minutes: entry.minutes, celsius: entry.celsius }]
      : [],
  )
  return [...readings, ...byHand].toSorted((a, b) => a.minutes - b.minutes)
}

/** The lightings of a round one after the other, the time between them cut to a little; those of which nothing was read are left out. */
export function inOneCurve(
  lightings: readonly Lighting[],
  wordsOf: (what: Schemas['Lighting'] | undefined) => string,
): readonly Session[] {
  const sessions: Session[] = []
  let from = 0
  for (const lighting of lightings) {
    const points = read(lighting)
    const last = points.at(-1)
    if (last === undefined) continue
    sessions.push({ words: wordsOf(lighting.lit.what), atMs: lighting.lit.at_ms, from, points })
    from += last.minutes + BREAK_MIN
  }
  return sessions
}
