import { useEffect, useRef, useState, type ReactNode } from 'react'

/** At the foot of a surface that scrolls: while there is more below, its last line fades, and an arrow says so. */
export function GoesOn(): ReactNode {
  const end = useRef<HTMLSpanElement>(null)
  const [more, setMore] = useState(false)
  useEffect(() => {
    const element = end.current
    if (element === null) return
    const observer = new IntersectionObserver(([entry]) => setMore(entry?.isIntersecting === false))
    observer.observe(element)
    return () => observer.disconnect()
  }, [])
  return (
    <>
      <span ref={end} aria-hidden className="col-span-full block h-px w-full shrink-0" />
      {more && (
        <span
          aria-hidden
          className="no-print pointer-events-none sticky bottom-0 z-10 col-span-full -mt-9 flex h-9 shrink-0 items-end justify-end bg-linear-to-t from-iron to-transparent max-bench:hidden"
        >
          <svg width="44" height="20" className="bg-iron">
            <path d="M8 5l14 10L36 5" fill="none" stroke="var(--chalk)" strokeWidth="1.8" />
          </svg>
        </span>
      )}
    </>
  )
}
