import { useQueries } from '@tanstack/react-query'
import { useWindowVirtualizer } from '@tanstack/react-virtual'
import { useLayoutEffect, useRef, useState, type ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { RACK_PAGE, rackQuery } from '../../api/queries'
import { Room, Strip, usual, type RackLinesProps } from './strips'

/** Strips drawn beyond either edge of the window. */
const BEYOND = 8
/** The lines of the rack: those near the window are asked for and drawn, the others keep their room. */
export function ManyLines({ away, find, rack, width }: RackLinesProps & { width: number }): ReactNode {
  const frame = useRef<HTMLDivElement>(null)
  const [margin, setMargin] = useState(0)
  useLayoutEffect(() => setMargin(frame.current?.offsetTop ?? 0), [frame])
  const list = useWindowVirtualizer({
    count: rack.total,
    estimateSize: () => usual(width),
    overscan: BEYOND,
    scrollMargin: margin,
    // The browser scrolls by itself: it does not wait for what is drawn.
    useFlushSync: false,
  })
  const seen = list.getVirtualItems()
  const wanted = new Set(seen.map((item) => Math.floor(item.index / RACK_PAGE)))
  const pages = [...wanted].filter((page) => page > 0)
  const read = useQueries({ queries: pages.map((page) => rackQuery(away, find, page)) })
  const lineAt = (at: number): Schemas['RackLine'] | undefined => {
    const page = Math.floor(at / RACK_PAGE)
    const lines = page === 0 ? rack.lines : read[pages.indexOf(page)]?.data?.lines
    return lines?.[at % RACK_PAGE]
  }
  const above = (seen[0]?.start ?? margin) - margin
  const below = list.getTotalSize() - ((seen.at(-1)?.end ?? margin) - margin)
  return (
    <div ref={frame} style={{ paddingTop: above, paddingBottom: Math.max(0, below) }}>
      {seen.map(({ index }) => {
        const line = lineAt(index)
        return (
          <div key={index} data-index={index} ref={list.measureElement}>
            {line === undefined ? (
              <Room height={usual(width)} />
            ) : (
              <Strip key={line.id} line={line} at={index} rack={rack} width={width} />
            )}
          </div>
        )
      })}
    </div>
  )
}
