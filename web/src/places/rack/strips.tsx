import { useDeferredValue, type ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { RackStrip } from './RackStrip'

export interface RackLinesProps {
  away: boolean
  find: string
  /** The first page. */
  rack: Schemas['Rack']
}

/** A strip that was not drawn yet is taken as so high, in px: as most are, on a laptop and on a phone. */
export const usual = (width: number): number => (width < 700 ? 100 : 74)
/** Strips of the first screen. */
const AT_ONCE = 12
/** The shortest scale, in minutes. */
const SHORTEST = 60
/** Jobs of a rank under this want a hand. */
const WANTS_A_HAND = 8

/** The room of a strip that is not drawn. */
export const Room = ({ height }: { height: number }): ReactNode => (
  <div style={{ height }} className="border-b border-rule" />
)

export interface StripProps {
  line: Schemas['RackLine']
  /** Its place from the top, from 0. */
  at: number
  rack: Schemas['Rack']
  width: number
}

/** A strip that is drawn when there is time for it: one that is scrolled past never is. */
export function Strip({ line, at, rack, width }: StripProps): ReactNode {
  const drawn = useDeferredValue(true, at < AT_ONCE)
  if (!drawn) return <Room height={usual(width)} />
  return (
    <RackStrip
      line={line}
      first={at === 0 && line.standing.rank < WANTS_A_HAND}
      now={rack.now_ms}
      longestOfAll={Math.max(SHORTEST, rack.longest_min)}
      width={width}
    />
  )
}
