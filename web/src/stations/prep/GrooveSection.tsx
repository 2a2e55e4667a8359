import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { useWidth } from '../../ui/useWidth'

export interface GrooveSectionProps {
  seam: Schemas['SeamPlan']
  /** Where along it. */
  cut: Schemas['SeamCut']
}

const HEIGHT = 250
const TOP = 62

/** The groove across the crack, to scale: wall, lip, angle, crown. */
export function GrooveSection({ seam, cut }: GrooveSectionProps): ReactNode {
  const [frame, width] = useWidth<SVGSVGElement>(520, 280)
  const WIDTH = Math.min(width, 560)
  const both = seam.form === 'double_V'
  const opens = cut.top_width_mm
  // One scale all along, so that a thinner place looks thinner.
  const widest = Math.max(...seam.cuts.map((it) => it.top_width_mm))
  const scale = Math.min(
    (WIDTH - 150) / Math.max(widest * 1.6, 10),
    (HEIGHT - TOP - 40) / Math.max(...seam.cuts.map((it) => it.wall_mm)),
    16,
  )
  const middle = WIDTH / 2 - 20
  const wall = cut.wall_mm * scale
  const half = (opens / 2) * scale
  const depth = cut.depth_mm * scale
  const outline = (down: 1 | -1): string => {
    const face = down === 1 ? TOP : TOP + wall
    const root = face + down * depth
    if (cut.root_radius_mm > 0) {
      const a = (seam.angle_deg / 2) * (Math.PI / 180)
      const r = cut.root_radius_mm * scale
      const [xt, yt] = [r * Math.cos(a), r * (1 - Math.sin(a))]
      return `M${middle - half} ${face}L${middle - xt} ${root - down * yt}A${r} ${r} 0 0 ${down === 1 ? 0 : 1} ${middle + xt} ${root - down * yt}L${middle + half} ${face}`
    }
    const gap = (seam.root_gap_mm / 2) * scale
    return `M${middle - half} ${face}L${middle - gap} ${root}H${middle + gap}L${middle + half} ${face}`
  }
  const crown = seam.cap_mm * scale
  const [left, right] = [30, WIDTH - 70]
  return (
    <svg
      ref={frame}
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="w-full"
      role="img"
      aria-label={`Groove of crack ${seam.letter}, across`}
    >
      <defs>
        <pattern id="hatch" width="9" height="9" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <path d="M0 0V9" stroke="var(--scribe)" strokeWidth="1" />
        </pattern>
      </defs>
      <rect x={left} y={TOP} width={right - left} height={wall} fill="url(#hatch)" />
      <g fill="var(--iron)" stroke="var(--chalk)" strokeWidth="2.2" strokeLinejoin="round">
        <path d={outline(1)} />
        {both && <path d={outline(-1)} />}
      </g>
      <g stroke="var(--chalk)" strokeWidth="2.2" fill="none">
        <path d={`M${left} ${TOP}H${middle - half}M${middle + half} ${TOP}H${right}`} />
        <path
          d={
            both
              ? `M${left} ${TOP + wall}H${middle - half}M${middle + half} ${TOP + wall}H${right}`
              : `M${left} ${TOP + wall}H${right}`
          }
        />
        <path
          d={`M${middle - half} ${TOP}Q${middle} ${TOP - crown * 2} ${middle + half} ${TOP}`}
          strokeDasharray="6 4"
          strokeWidth="1.4"
        />
        <path
          d={`M${middle} ${TOP + depth}V${both ? TOP + wall - depth : TOP + wall}`}
          strokeWidth="2.8"
          strokeDasharray="5 3"
        />
      </g>
      <g stroke="var(--ash)" strokeWidth="1" fill="none">
        <path
          d={`M${middle - half} ${TOP - crown - 10}V24M${middle + half} ${TOP - crown - 10}V24M${middle - half} 30H${middle + half}`}
        />
        <path
          d={`M${right + 6} ${TOP}h22M${right + 6} ${TOP + wall}h22M${right + 20} ${TOP}V${TOP + wall}`}
        />
      </g>
      <g fill="var(--chalk)" fontSize="15" className="figure">
        <text x={middle} y="20" textAnchor="middle">
          {cut.opens_words}
        </text>
        <text x={right + 26} y={TOP + wall / 2 + 5}>
          {cut.wall_words}
        </text>
        <text x={middle} y={TOP + wall + 26} textAnchor="middle" fill="var(--ash)">
          {cut.depth_words}
        </text>
      </g>
    </svg>
  )
}
