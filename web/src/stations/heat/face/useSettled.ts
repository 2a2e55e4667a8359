import { useEffect, useState } from 'react'

/** A flame that is moved on within this time is not asked for, in ms. */
const SETTLES = 120

/** What a value came to rest at. */
export function useSettled<T>(value: T): T {
  const [settled, setSettled] = useState(value)
  useEffect(() => {
    const timer = setTimeout(() => setSettled(value), SETTLES)
    return () => clearTimeout(timer)
  }, [value])
  return settled
}
