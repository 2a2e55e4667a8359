import { useEffect, useRef, useState, type RefObject } from 'react'

export interface Size {
  width: number
  height: number
}

/** The size of an element in pixels, as it changes. */
export function useSize<E extends Element>(first: Size): [RefObject<E | null>, Size] {
  const frame = useRef<E>(null)
  const [size, setSize] = useState(first)
  useEffect(() => {
    const element = frame.current
    if (element === null) return
    const observer = new ResizeObserver(([entry]) => {
      const { width, height } = entry?.contentRect ?? { width: 0, height: 0 }
      if (width > 0 && height > 0) setSize({ width, height })
    })
    observer.observe(element)
    return () => observer.disconnect()
  }, [])
  return [frame, size]
}

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
