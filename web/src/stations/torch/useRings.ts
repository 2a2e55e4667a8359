import { useEffect, useRef, useState } from 'react'
import type { Live } from '../../api/client'
import { heard, ring, unlock } from '../../job/bell'
import { rung, tells, withGone, type Runs } from './clocks'

export interface Rings {
  /** What rang last, in words; empty for nothing. */
  said: string
  /** Somebody saw it. */
  seen: () => void
  muted: boolean
  mute: (muted: boolean) => void
  /** The page may sound: it was pressed once. */
  audible: boolean
}

/** The clocks of a reading, as they ring. */
export const runsOf = (live: Live | null): Runs[] =>
  (live?.clocks ?? []).map((it) => ({
    kind: it.kind,
    endsMin: it.ends_min,
    words: `${it.words}: then ${it.then}`,
  }))

const keyOf = (lit: string) => `torch-muted.${lit}`

/** Rings when a clock has run down, and while the part is out of its window: at once, then each minute. */
export function useRings(
  lit: string,
  clocks: readonly Runs[],
  out: string,
  now: number,
  heardMin: number,
): Rings {
  const [said, setSaid] = useState('')
  const [muted, setMuted] = useState(() => sessionStorage.getItem(keyOf(lit)) === '1')
  const [audible, setAudible] = useState(heard)
  const last = useRef(now)
  const before = useRef<readonly Runs[]>([])
  const outside = useRef<{ since: number | null; told: number | null }>({ since: null, told: null })
  useEffect(() => {
    const press = () => {
      unlock()
      // It is let go on a moment after the press.
      setTimeout(() => setAudible(heard()), 200)
    }
    window.addEventListener('pointerdown', press)
    window.addEventListener('keydown', press)
    return () => {
      window.removeEventListener('pointerdown', press)
      window.removeEventListener('keydown', press)
    }
  }, [])
  useEffect(() => {
    // The reading may be further on than the clock of this page.
    const moment = Math.max(now, heardMin, last.current)
    const down = rung(withGone(before.current, clocks), last.current, moment)
    before.current = clocks
    last.current = moment
    if (out === '') outside.current = { since: null, told: outside.current.told }
    else outside.current.since ??= now
    const told = tells(outside.current.since, outside.current.told, now)
    if (told) outside.current.told = now
    const words = [...down.map((clock) => clock.words), ...(told ? [out] : [])]
    if (words.length === 0) return
    setSaid(words.join('. '))
    if (!muted) ring()
  }, [clocks, out, now, heardMin, muted])
  return {
    said,
    seen: () => setSaid(''),
    muted,
    mute: (next) => {
      sessionStorage.setItem(keyOf(lit), next ? '1' : '0')
      setMuted(next)
    },
    audible,
  }
}
