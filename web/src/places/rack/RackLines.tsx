import { useQueries } from '@tanstack/react-query'
import { useWindowVirtualizer } from '@tanstack/react-virtual'
import { useLayoutEffect, useRef, useState, type ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { RACK_PAGE, rackQuery } from '../../api/queries'
import { RackStrip } from './RackStrip'

export interface RackLinesProps {
  away: boolean
  find: string
  /** The first page. */
  rack: Schemas['Rack']
}

/** A strip that was not drawn yet is taken as so high, in px. */
const USUAL = 102
/** Strips drawn beyond either edge of the window. */
const BEYOND = 8
/** The shortest scale, in minutes. */
const SHORTEST = 60

/** The lines of the rack: those near the window are asked for and drawn, the others keep their room. */
export function RackLines({ away, find, rack }: RackLinesProps): ReactNode {
  const frame = useRef<HTMLDivElement>(null)
  const [margin, setMargin] = useState(0)
  useLayoutEffect(() => setMargin(frame.current?.offsetTop ?? 0), [])
  const list = useWindowVirtualizer({
    count: rack.total,
    estimateSize: () => USUAL,
    overscan: BEYOND,
    scrollMargin: margin,
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
              <div style={{ height: USUAL }} className="border-b border-rule" />
            ) : (
              <RackStrip
                key={line.id}
                line={line}
                first={index === 0 && line.standing.rank < 8}
                now={rack.now_ms}
                longestOfAll={Math.max(SHORTEST, rack.longest_min)}
              />
            )}
          </div>
        )
      })}
    </div>
  )
}
