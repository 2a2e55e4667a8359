import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { useJob } from '../../job/JobContext'
import { path } from '../../ui/pen'

type At = Schemas['At']

const line = (points: readonly At[]): string => path(points.map(({ x_mm, y_mm }) => [x_mm, y_mm] as const))
const STILL = { vectorEffect: 'non-scaling-stroke' } as const

/** Each face with its cracks as they were found, and dotted on to where they really ended. */
export function TruthMap({ tips }: { tips: readonly Schemas['TrueTip'][] }): ReactNode {
  const { view } = useJob()
  const shown = tips.flatMap((tip) =>
    tip.on_map == null ? [] : [{ ...tip.on_map, hole: tip.hole_to_mm ?? null }],
  )
  const faces = view.plan.map.faces.filter((face) => shown.some((tip) => tip.face === face.id))
  return faces.map((face) => {
    const { left_mm, top_mm, right_mm, bottom_mm } = face.frame
    const [wide, high] = [right_mm - left_mm, bottom_mm - top_mm]
    const r = Math.max(wide, high) / 80
    return (
      <svg
        key={face.id}
        viewBox={`${left_mm} ${top_mm} ${wide} ${high}`}
        className="mt-2 h-auto max-h-[260px] w-full max-w-[560px]"
        role="img"
        aria-label={`${face.name}, with the true ends`}
        fill="none"
        strokeLinejoin="round"
        strokeLinecap="round"
        data-testid="truth-map"
      >
        {face.rims.map((rim, at) => (
          <path key={at} d={`${line(rim)}Z`} stroke="var(--dim)" strokeWidth="1.6" style={STILL} />
        ))}
        {face.lines.map((it) => (
          <path key={it.crack} d={line(it.points)} stroke="var(--chalk)" strokeWidth="2.4" style={STILL} />
        ))}
        {shown
          .filter((tip) => tip.face === face.id)
          .map((tip) => (
            <g key={`${tip.found.x_mm},${tip.found.y_mm}`} stroke="var(--chalk)">
              <path d={line([tip.found, tip.truly])} strokeWidth="2.4" strokeDasharray="2 5" style={STILL} />
              <path
                d={`M${tip.truly.x_mm - r} ${tip.truly.y_mm - r}l${2 * r} ${2 * r}m0 ${-2 * r}l${-2 * r} ${2 * r}`}
                strokeWidth="2"
                style={STILL}
              />
            </g>
          ))}
      </svg>
    )
  })
}
