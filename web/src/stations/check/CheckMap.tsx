import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { FaceDrawing, STILL } from '../../job/FaceDrawing'
import { useJob } from '../../job/JobContext'
import { apart, pointsOn, spots, type Spot } from './spots'

type At = Schemas['At']

/** How a spot is drawn: open a ring, good a full mark, not good a cross over it, left a half one. */
const FILL: Record<Spot['verdict'], string> = {
  open: 'var(--iron)',
  ok: 'var(--chalk)',
  left: 'var(--dim)',
  not_ok: 'var(--iron)',
}

export interface CheckMapProps {
  lines: readonly Schemas['CheckLine'][]
  /** What has to fit: how far it moved stands at its place. */
  sizes: readonly Schemas['SizePlan'][]
}

/** The faces with their places, each with its number and how it stands. */
export function CheckMap({ lines, sizes }: CheckMapProps): ReactNode {
  const { view } = useJob()
  const all = spots(lines)
  const read = sizes.filter((size) => size.readings.length > 0)
  const faces = view.plan.map.faces.filter(
    (face) =>
      all.some((spot) => spot.face === face.id) ||
      face.marks.some((mark) => read.some((size) => size.mark === mark.id)),
  )
  if (faces.length === 0) return null
  return (
    <div className="flex flex-col gap-3" data-testid="check-map">
      {faces.map((face) => (
        <OneFace
          key={face.id}
          face={face}
          spots={all.filter((spot) => spot.face === face.id)}
          points={pointsOn(lines, face.id)}
          sizes={read}
          job={view.id}
        />
      ))}
    </div>
  )
}

interface OneFaceProps {
  face: Schemas['FacePlan']
  spots: readonly Spot[]
  /** Where the file is tried. */
  points: readonly At[]
  sizes: readonly Schemas['SizePlan'][]
  job: string
}

function OneFace({ face, spots: here, points, sizes, job }: OneFaceProps): ReactNode {
  const { left_mm, top_mm, right_mm, bottom_mm } = face.frame
  const [wide, high] = [right_mm - left_mm, bottom_mm - top_mm]
  // Numbers are as large on a small face as on a large one.
  const unit = Math.max(wide, high * 1.2) / 300
  const r = 13 * unit
  return (
    <figure>
      <FaceDrawing
        job={job}
        face={face}
        className="h-auto max-h-[300px] w-full"
        label={`${face.name}: ${here.map((spot) => `${spot.number}, ${spot.words}`).join('; ')}`}
      >
        {points.map(({ x_mm, y_mm }) => (
          <path
            key={`${x_mm} ${y_mm}`}
            data-file-point
            d={`M${x_mm - r / 3} ${y_mm}h${(2 * r) / 3}M${x_mm} ${y_mm - r / 3}v${(2 * r) / 3}`}
            stroke="var(--chalk)"
            strokeWidth="1.5"
            style={STILL}
          />
        ))}
        {face.marks.map((mark) => {
          const size = sizes.find((it) => it.mark === mark.id)
          const { x_mm: x, y_mm: y } = mark.middle
          return (
            size !== undefined && (
              <g key={mark.id} data-size-on-map={mark.id}>
                <path
                  d={`M${x - r / 2} ${y}L${x} ${y - r / 2}L${x + r / 2} ${y}L${x} ${y + r / 2}Z`}
                  fill={size.within === false ? 'var(--iron)' : 'var(--chalk)'}
                  stroke="var(--chalk)"
                  strokeWidth="2"
                  style={STILL}
                />
                <text
                  x={x}
                  y={y + 1.6 * r}
                  fontSize={15 * unit}
                  textAnchor={x < left_mm + wide / 7 ? 'start' : x > right_mm - wide / 7 ? 'end' : 'middle'}
                  fill="var(--chalk)"
                >
                  {size.moved_words === '' ? size.name : size.moved_words}
                </text>
              </g>
            )
          )
        })}
        {apart(here, r).map((spot) => {
          const { x, y } = spot
          return (
            <g key={spot.number} data-spot={spot.number} data-verdict={spot.verdict}>
              <path
                d={`M${spot.at.x_mm} ${spot.at.y_mm}L${x} ${y}`}
                stroke="var(--dim)"
                strokeWidth="1.5"
                style={STILL}
              />
              <circle
                cx={x}
                cy={y}
                r={r}
                fill={FILL[spot.verdict]}
                stroke="var(--chalk)"
                strokeWidth="2"
                strokeDasharray={spot.behind ? '4 3' : undefined}
                style={STILL}
              />
              {spot.verdict === 'not_ok' && (
                <path
                  d={`M${x - r * 1.5} ${y + r * 1.5}L${x + r * 1.5} ${y - r * 1.5}`}
                  stroke="var(--chalk)"
                  strokeWidth="3"
                  style={STILL}
                />
              )}
              <text
                x={x}
                y={y + 5.5 * unit}
                fontSize={16 * unit}
                fontWeight="700"
                textAnchor="middle"
                fill={spot.verdict === 'ok' ? 'var(--iron)' : 'var(--chalk)'}
              >
                {spot.number}
              </text>
            </g>
          )
        })}
      </FaceDrawing>
      <figcaption className="text-ash">{face.name}</figcaption>
    </figure>
  )
}
