import { useId, type ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { useJob } from '../../job/JobContext'
import { path } from '../../ui/heat-line-layout'

type At = Schemas['At']

const line = (points: readonly At[]): string => path(points.map(({ x_mm, y_mm }) => [x_mm, y_mm] as const))
const STILL = { vectorEffect: 'non-scaling-stroke' } as const

export interface OnTheMapProps {
  bead: Schemas['NextBead']
}

/** The next bead pointed out on its face: where it begins and which way it goes. Nothing where its crack is not drawn. */
export function OnTheMap({ bead }: OnTheMapProps): ReactNode {
  const { view } = useJob()
  const id = useId()
  const on = bead.on_map[0]
  const face = view.plan.map.faces.find((it) => it.id === on?.face)
  if (on === undefined || face === undefined) return null
  const { left_mm, top_mm, right_mm, bottom_mm } = face.frame
  const [wide, high] = [right_mm - left_mm, bottom_mm - top_mm]
  const room = Math.max(wide, high) * 0.04
  const cracks = face.lines.filter((it) => !it.from_behind)
  return (
    <figure className="bench:w-[250px]" data-testid="torch-on-map">
      <svg
        viewBox={`${left_mm - room} ${top_mm - room} ${wide + 2 * room} ${high + 2 * room}`}
        className="max-h-[170px] w-full"
        role="img"
        aria-label={`Bead ${bead.number} on ${face.name}`}
        fill="none"
        strokeLinejoin="round"
        strokeLinecap="round"
      >
        <defs>
          <marker
            id={id}
            viewBox="0 0 10 10"
            refX="6"
            refY="5"
            markerWidth="4"
            markerHeight="4"
            orient="auto"
          >
            <path d="M0 0L10 5L0 10Z" fill="var(--chalk)" />
          </marker>
        </defs>
        {face.seen != null && (
          <image
            href={`/api/jobs/${view.id}/map/${face.id}/picture/${face.seen.revision}`}
            x={face.seen.frame.left_mm}
            y={face.seen.frame.top_mm}
            width={face.seen.frame.right_mm - face.seen.frame.left_mm}
            height={face.seen.frame.bottom_mm - face.seen.frame.top_mm}
            preserveAspectRatio="none"
            opacity="0.4"
          />
        )}
        {face.rims.map((rim, at) => (
          <path key={at} d={`${line(rim)}Z`} stroke="var(--dim)" strokeWidth="1.6" style={STILL} />
        ))}
        {cracks.map((it) => (
          <path key={it.crack} d={line(it.points)} stroke="var(--ash)" strokeWidth="2" style={STILL} />
        ))}
        <path
          d={line(on.points)}
          stroke="var(--chalk)"
          strokeWidth="5"
          style={STILL}
          markerEnd={`url(#${id})`}
        />
      </svg>
      <figcaption className="text-ash">{face.name}</figcaption>
    </figure>
  )
}
