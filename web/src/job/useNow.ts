import { useEffect, useState } from 'react'
import { serverNow } from '../api/queue/server-clock'

/** The server's time, once a second. */
export function useNow(): number {
  const [now, setNow] = useState(serverNow)
  useEffect(() => {
    const tick = setInterval(() => setNow(serverNow()), 1_000)
    return () => clearInterval(tick)
  }, [])
  return now
}
