import { useId, type ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { FaceDrawing, STILL, lineOf } from '../../job/FaceDrawing'
import { useJob } from '../../job/JobContext'

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
  return (
    <figure className="bench:w-[250px]" data-testid="torch-on-map">
      <FaceDrawing
        job={view.id}
        face={face}
        room={0.04}
        className="max-h-[170px] w-full"
        label={`Bead ${bead.number} on ${face.name}`}
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
        <path
          d={lineOf(on.points)}
          stroke="var(--chalk)"
          strokeWidth="5"
          style={STILL}
          markerEnd={`url(#${id})`}
        />
      </FaceDrawing>
      <figcaption className="text-ash">{face.name}</figcaption>
    </figure>
  )
}
