import type { ReactNode } from 'react'
import type { Schemas } from '../api/client'
import { path } from '../ui/pen'

type At = Schemas['At']

export const lineOf = (points: readonly At[]): string =>
  path(points.map(({ x_mm, y_mm }) => [x_mm, y_mm] as const))

/** A stroke is as wide on a small face as on a large one. */
export const STILL = { vectorEffect: 'non-scaling-stroke' } as const

export interface FaceDrawingProps {
  job: string
  face: Schemas['FacePlan']
  /** What is said of it to whoever does not see it. */
  label: string
  className: string
  /** So much round it, of its longer side. */
  room?: number
  /** What lies over it. */
  children?: ReactNode
}

/** A face with its picture, outline, cracks and stop-holes, quiet under what is drawn over it. */
export function FaceDrawing({
  job,
  face,
  label,
  className,
  room = 0,
  children,
}: FaceDrawingProps): ReactNode {
  const { left_mm, top_mm, right_mm, bottom_mm } = face.frame
  const [wide, high] = [right_mm - left_mm, bottom_mm - top_mm]
  const round = Math.max(wide, high) * room
  return (
    <svg
      viewBox={`${left_mm - round} ${top_mm - round} ${wide + 2 * round} ${high + 2 * round}`}
      className={className}
      role="img"
      aria-label={label}
      fill="none"
      strokeLinejoin="round"
      strokeLinecap="round"
    >
      {face.seen != null && (
        <image
          href={`/api/jobs/${job}/map/${face.id}/picture/${face.seen.revision}`}
          x={face.seen.frame.left_mm}
          y={face.seen.frame.top_mm}
          width={face.seen.frame.right_mm - face.seen.frame.left_mm}
          height={face.seen.frame.bottom_mm - face.seen.frame.top_mm}
          preserveAspectRatio="none"
          opacity="0.4"
        />
      )}
      {face.rims.map((rim, at) => (
        <path key={at} d={`${lineOf(rim)}Z`} stroke="var(--dim)" strokeWidth="1.6" style={STILL} />
      ))}
      {face.lines.map((it) => (
        <path
          key={it.crack}
          d={lineOf(it.points)}
          stroke={it.from_behind ? 'var(--dim)' : 'var(--ash)'}
          strokeWidth="2.5"
          style={STILL}
        />
      ))}
      {face.holes.map((hole) => (
        <circle
          key={`${hole.crack} ${hole.side}`}
          cx={hole.at.x_mm}
          cy={hole.at.y_mm}
          r={hole.drill_mm / 2}
          stroke="var(--ash)"
          strokeWidth="1.5"
          style={STILL}
        />
      ))}
      {children}
    </svg>
  )
}
