import { useEffect, useRef, useState } from 'react'
import { useJob, useLive } from '../../job/JobContext'
import { jobMinutes } from './clocks'

/** Minutes on the job clock, twice a second: as the pad has it, and gone on while nothing is heard. */
export function useJobClock(): number {
  const { view } = useJob()
  const { live } = useLive()
  const speed = view.job.rounds.at(-1)?.lit?.speed ?? 1
  const known = useRef({ minutes: 0, atMs: 0 })
  const heard = Math.max(live?.minutes ?? 0, view.standing.minutes ?? 0)
  const [now, setNow] = useState(heard)
  useEffect(() => {
    known.current = { minutes: heard, atMs: performance.now() }
    const tick = () => setNow(jobMinutes(known.current.minutes, known.current.atMs, speed, performance.now()))
    tick()
    const ticks = setInterval(tick, 500)
    return () => clearInterval(ticks)
  }, [heard, speed])
  return now
}
