import { useLayoutEffect, useRef, useState, type RefObject } from 'react'

/** So much of the last line may be cut by rounding. */
const CUT = 1
/** What says that there is more takes so much. */
const NOTE = 26

export interface WholeLines {
  frame: RefObject<HTMLDivElement | null>
  /** How much of its foot is covered, so that what is seen ends at a whole line; 0 where all of it fits. */
  cover: number
  /** Lines under it. */
  under: number
}

/** What scrolls ends at a whole line: of the elements that `lines` names none is cut while it stands at its top. */
export function useWholeLines(lines: string): WholeLines {
  const frame = useRef<HTMLDivElement>(null)
  const [ends, setEnds] = useState({ cover: 0, under: 0 })
  const look = useRef(() => {})
  useLayoutEffect(() => {
    look.current = () => {
      const element = frame.current
      if (element === null) return
      const { top } = element.getBoundingClientRect()
      const bottoms = [...element.querySelectorAll(lines)].map(
        (line) => line.getBoundingClientRect().bottom - top + element.scrollTop,
      )
      const within = (room: number) => bottoms.filter((bottom) => bottom <= room + CUT)
      const room = element.clientHeight
      const fit = within(room).length === bottoms.length ? bottoms : within(room - NOTE)
      const under = bottoms.length - fit.length
      const cover = under === 0 ? 0 : room - Math.max(0, ...fit)
      setEnds((known) => (known.cover === cover && known.under === under ? known : { cover, under }))
    }
    // What it holds may be another with each drawing.
    look.current()
  })
  useLayoutEffect(() => {
    const element = frame.current
    if (element === null) return
    const observer = new ResizeObserver(() => look.current())
    observer.observe(element)
    return () => observer.disconnect()
  }, [])
  return { frame, ...ends }
}
