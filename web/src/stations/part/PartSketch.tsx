import type { ReactNode } from 'react'
import { useJob } from '../../job/JobContext'
import { spot } from '../../ui/pen'

const SIDES = ['part.length', 'part.width', 'part.height'] as const
const BOX = { width: 270, height: 150 }
/** Directions of length, width and height on the page. */
const ALONG = [0.94, -0.2] as const
const BACK = [0.5, -0.42] as const

/** The part's bounding box to scale, with the break where it lies. */
export function PartSketch(): ReactNode {
  const { view, field } = useJob()
  const { size_mm, break_at: share, longest } = view.plan.part.sketch
  const known = size_mm != null
  const [length, width, height] = size_mm ?? [3, 2, 1.2]
  const spanX = length * ALONG[0] + width * BACK[0]
  const spanY = height + length * -ALONG[1] + width * -BACK[1]
  const scale = Math.min((BOX.width - 40) / spanX, (BOX.height - 30) / spanY)
  const origin = [18, BOX.height - 14] as const
  const at = (a: number, b: number, c: number): string => {
    const x = origin[0] + scale * (a * length * ALONG[0] + b * width * BACK[0])
    const y = origin[1] + scale * (a * length * ALONG[1] + b * width * BACK[1] - c * height)
    return spot(x, y)
  }
  const cut = {
    length: `M${at(share, 0, 0)}L${at(share, 0, 1)}L${at(share, 1, 1)}`,
    width: `M${at(0, share, 1)}L${at(1, share, 1)}L${at(1, share, 0)}`,
    height: `M${at(0, 0, share)}L${at(1, 0, share)}L${at(1, 1, share)}`,
  }[longest]
  const texts = SIDES.map((key) => {
    const { shown } = field(key)
    return shown == null ? '' : `${shown.number} ${shown.unit}`
  })
  return (
    <svg
      viewBox={`0 0 ${BOX.width} ${BOX.height}`}
      className="w-full"
      role="img"
      aria-label="The part's bounding box with the break"
    >
      <g
        fill="none"
        stroke="var(--chalk)"
        strokeWidth={2.2}
        strokeDasharray={known ? undefined : '5 5'}
        strokeLinejoin="round"
      >
        <path d={`M${at(0, 0, 0)}L${at(1, 0, 0)}L${at(1, 0, 1)}L${at(0, 0, 1)}Z`} fill="var(--slab)" />
        <path d={`M${at(0, 0, 1)}L${at(0, 1, 1)}L${at(1, 1, 1)}L${at(1, 0, 1)}Z`} fill="var(--slab)" />
        <path d={`M${at(1, 0, 0)}L${at(1, 1, 0)}L${at(1, 1, 1)}`} />
      </g>
      <path d={cut} fill="none" stroke="var(--iron)" strokeWidth={6} />
      <path d={cut} fill="none" stroke="var(--chalk)" strokeWidth={2.8} strokeDasharray="7 3 2 3" />
      {known && (
        <g fill="var(--ash)" fontSize="16" className="figure">
          <text x="14" y="16">
            {texts.join(' × ')}
          </text>
        </g>
      )}
    </svg>
  )
}
