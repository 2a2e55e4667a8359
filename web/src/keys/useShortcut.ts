import { useEffect, useRef } from 'react'
import type { SaidKey } from './table'

/** Does something when a key is pressed that this station can answer. */
export function useShortcut(name: SaidKey, action: () => void): void {
  const latest = useRef(action)
  useEffect(() => {
    latest.current = action
  })
  useEffect(() => {
    const handle = () => latest.current()
    window.addEventListener(`vanadin:${name}`, handle)
    return () => window.removeEventListener(`vanadin:${name}`, handle)
  }, [name])
}
