import { useQueries } from '@tanstack/react-query'
import { useWindowVirtualizer } from '@tanstack/react-virtual'
import { useDeferredValue, useLayoutEffect, useState, type ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { RACK_PAGE, rackQuery } from '../../api/queries'
import { useWidth } from '../../ui/useWidth'
import { RackStrip, type RackStripProps } from './RackStrip'

export interface RackLinesProps {
  away: boolean
  find: string
  /** The first page. */
  rack: Schemas['Rack']
}

/** A strip that was not drawn yet is taken as so high, in px: as most are, on a laptop and on a phone. */
const usual = (width: number): number => (width < 700 ? 100 : 74)
/** Strips drawn beyond either edge of the window. */
const BEYOND = 8
/** Strips of the first screen. */
const AT_ONCE = 12
/** The shortest scale, in minutes. */
const SHORTEST = 60

/** The lines of the rack: those near the window are asked for and drawn, the others keep their room. */
export function RackLines({ away, find, rack }: RackLinesProps): ReactNode {
  const [frame, width] = useWidth<HTMLDivElement>(1240, 300)
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
              <Strip
                key={line.id}
                line={line}
                first={index === 0 && line.standing.rank < 8}
                atOnce={index < AT_ONCE}
                now={rack.now_ms}
                longestOfAll={Math.max(SHORTEST, rack.longest_min)}
                width={width}
              />
            )}
          </div>
        )
      })}
    </div>
  )
}

/** The room of a strip that is not drawn. */
const Room = ({ height }: { height: number }): ReactNode => (
  <div style={{ height }} className="border-b border-rule" />
)

/** A strip that is drawn when there is time for it: one that is scrolled past never is. */
function Strip({ atOnce, ...props }: RackStripProps & { atOnce: boolean }): ReactNode {
  const drawn = useDeferredValue(true, atOnce)
  return drawn ? <RackStrip {...props} /> : <Room height={usual(props.width)} />
}
