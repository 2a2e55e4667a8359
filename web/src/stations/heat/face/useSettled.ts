import { useEffect, useState } from 'react'

/** A flame that the arrows move on within this time is not asked for, in ms. */
const SETTLES = 120

/** What a value came to rest at; the value itself where it does not go on `moving`. */
export function useSettled<T>(value: T, moving: boolean): T {
  const [settled, setSettled] = useState(value)
  useEffect(() => {
    const timer = setTimeout(() => setSettled(value), SETTLES)
    return () => clearTimeout(timer)
  }, [value])
  return moving ? settled : value
}
