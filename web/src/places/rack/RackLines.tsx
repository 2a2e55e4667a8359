import { Suspense, type ReactNode } from 'react'
import { later } from '../../ui/later'
import { useWidth } from '../../ui/useWidth'
import { Strip, type RackLinesProps } from './strips'

const ManyLines = later(async () => (await import('./ManyLines')).ManyLines)

/** The lines of the rack. More than the first page are drawn as they come near the window. */
export function RackLines(props: RackLinesProps): ReactNode {
  const { rack } = props
  const [frame, width] = useWidth<HTMLDivElement>(1240, 300)
  const first = rack.lines.map((line, at) => (
    <Strip key={line.id} line={line} at={at} rack={rack} width={width} />
  ))
  return (
    <div ref={frame}>
      {rack.total > rack.lines.length ? (
        <Suspense fallback={first}>
          <ManyLines {...props} width={width} />
        </Suspense>
      ) : (
        first
      )}
    </div>
  )
}
