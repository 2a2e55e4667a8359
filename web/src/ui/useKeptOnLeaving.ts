import { useEffect, useRef } from 'react'

/** Says what is still being typed when the page is closed or left, so that it is not lost. */
export function useKeptOnLeaving(commit: () => void): void {
  const latest = useRef(commit)
  useEffect(() => {
    latest.current = commit
  })
  useEffect(() => {
    const handleLeaving = () => latest.current()
    window.addEventListener('pagehide', handleLeaving)
    return () => window.removeEventListener('pagehide', handleLeaving)
  }, [])
}
