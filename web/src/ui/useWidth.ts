import { useEffect, useRef, useState, type RefObject } from 'react'

/** The width of an element in pixels, as it changes. `least` keeps a drawing from collapsing. */
export function useWidth<E extends Element>(first: number, least: number): [RefObject<E | null>, number] {
  const frame = useRef<E>(null)
  const [width, setWidth] = useState(first)
  useEffect(() => {
    const element = frame.current
    if (element === null) return
    const observer = new ResizeObserver(([entry]) =>
      setWidth(Math.max(least, entry?.contentRect.width ?? first)),
    )
    observer.observe(element)
    return () => observer.disconnect()
  }, [first, least])
  return [frame, width]
}
