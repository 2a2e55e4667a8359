import { memo, type ReactNode } from 'react'
import type { Schemas } from '../../../api/client'
import type { FaceOnMap, Line } from './edit'
import { pathOf } from './view'

export interface LayersProps {
  job: string
  face: FaceOnMap
  /** The crack that is chosen: the only one with its groove and margin. */
  chosen: string | null
}

const STILL = { vectorEffect: 'non-scaling-stroke' } as const

/** Everything that lies on a face, in mm. Drawn anew only when the face is another. */
export const Layers = memo(function Layers({ job, face, chosen }: LayersProps): ReactNode {
  const { seen } = face
  return (
    <g fill="none" strokeLinejoin="round" strokeLinecap="round">
      {seen != null && (
        <image
          href={`/api/jobs/${job}/map/${face.id}/picture/${seen.revision}`}
          x={seen.frame.left_mm}
          y={seen.frame.top_mm}
          width={seen.frame.right_mm - seen.frame.left_mm}
          height={seen.frame.bottom_mm - seen.frame.top_mm}
          preserveAspectRatio="none"
          opacity="0.72"
        />
      )}
      {face.rims.map((rim, index) => (
        <path
          key={index}
          d={pathOf(rim, true)}
          stroke="var(--chalk)"
          strokeWidth="2.2"
          style={STILL}
          fill={seen == null && index === 0 ? 'var(--slab)' : 'none'}
        />
      ))}
      {face.marks.map((mark) => (
        <Mark key={mark.id} mark={mark} />
      ))}
      {face.lines.map((line) => (
        <Crack
          key={`${line.crack} ${line.from_behind}`}
          line={line}
          chosen={line.crack === chosen && !line.from_behind}
        />
      ))}
      {face.tacks.map((tack) => (
        <circle
          key={`${tack.crack} ${tack.number}`}
          cx={tack.at.x_mm}
          cy={tack.at.y_mm}
          r="2.5"
          fill="var(--iron)"
          stroke="var(--chalk)"
          strokeWidth="1.5"
          style={STILL}
        />
      ))}
      {face.punches.map(({ x_mm, y_mm }) => (
        <path
          key={`${x_mm} ${y_mm}`}
          d={`M${x_mm - 2} ${y_mm - 2}l4 4m0 -4l-4 4`}
          stroke="var(--chalk)"
          strokeWidth="2.2"
          style={STILL}
        />
      ))}
      {face.locks.map(({ from, to }) => (
        <path
          key={`${from.x_mm} ${from.y_mm}`}
          d={`M${from.x_mm} ${from.y_mm}L${to.x_mm} ${to.y_mm}`}
          stroke="var(--chalk)"
          strokeWidth="5"
          style={STILL}
        />
      ))}
      {face.pins.map((pin) => (
        <Pin key={`${pin.crack} ${pin.number}`} pin={pin} />
      ))}
      {face.holes.map((hole) => {
        const reach = hole.drill_mm / 2 + 3
        const { x_mm, y_mm } = hole.at
        return (
          <g key={`${hole.crack} ${hole.side}`}>
            <circle
              cx={x_mm}
              cy={y_mm}
              r={hole.drill_mm / 2}
              stroke="var(--chalk)"
              strokeWidth="2"
              strokeDasharray={hole.uncertain ? '5 4' : undefined}
              fill={hole.drilled ? 'var(--iron)' : 'none'}
              style={STILL}
            />
            <path
              d={`M${x_mm - reach} ${y_mm}h${2 * reach}M${x_mm} ${y_mm - reach}v${2 * reach}`}
              stroke="var(--ash)"
              strokeWidth="1"
              strokeDasharray="9 3 2 3"
              style={STILL}
            />
          </g>
        )
      })}
      {face.clashes.map((clash) => (
        <circle
          key={clash.sentence}
          cx={clash.at.x_mm}
          cy={clash.at.y_mm}
          r="9"
          stroke="var(--chalk)"
          strokeWidth="1.5"
          strokeDasharray="2 4"
          style={STILL}
        />
      ))}
    </g>
  )
})

function Crack({ line, chosen }: { line: Line; chosen: boolean }): ReactNode {
  const path = pathOf(line.points)
  if (line.from_behind) {
    return <path d={path} stroke="var(--ash)" strokeWidth="1.6" strokeDasharray="3 5" style={STILL} />
  }
  return (
    <g>
      {chosen && line.margin.length > 2 && (
        <path
          d={pathOf(line.margin, true)}
          stroke="var(--dim)"
          strokeWidth="1"
          strokeDasharray="2 4"
          style={STILL}
        />
      )}
      {chosen && line.groove.length > 2 && (
        <path
          d={pathOf(line.groove, true)}
          stroke="var(--ash)"
          strokeWidth="1.2"
          fill="var(--chalk)"
          fillOpacity="0.1"
          style={STILL}
        />
      )}
      {line.earlier.map((before, index) => (
        <path
          key={index}
          d={pathOf(before)}
          stroke="var(--dim)"
          strokeWidth="5"
          strokeOpacity="0.55"
          style={STILL}
        />
      ))}
      {line.witness.length > 1 && (
        <path
          d={pathOf(line.witness)}
          stroke="var(--ash)"
          strokeWidth="1.2"
          strokeDasharray="6 4"
          style={STILL}
        />
      )}
      <path d={path} stroke="var(--iron)" strokeWidth="6.8" style={STILL} />
      <path
        d={path}
        stroke="var(--chalk)"
        strokeWidth={chosen ? 3.4 : 2.8}
        strokeDasharray={line.becomes === 'leave' ? '2 5' : line.becomes === 'sound' ? '10 4' : undefined}
        style={STILL}
      />
    </g>
  )
}

function Mark({ mark }: { mark: FaceOnMap['marks'][number] }): ReactNode {
  const { shape, what } = mark
  switch (shape.kind) {
    case 'circle': {
      const { x_mm, y_mm, radius_mm } = shape
      const hard = what === 'hard_spot'
      return (
        <g>
          <circle
            cx={x_mm}
            cy={y_mm}
            r={radius_mm}
            stroke="var(--chalk)"
            strokeWidth={hard ? 2 : 1.8}
            strokeDasharray={hard ? '2 4' : undefined}
            fill={hard ? 'none' : 'var(--iron)'}
            style={STILL}
          />
          {hard && (
            <path
              d={`M${x_mm - radius_mm * 0.5} ${y_mm - radius_mm * 0.5}l${radius_mm} ${radius_mm}m0 ${-radius_mm}l${-radius_mm} ${radius_mm}`}
              stroke="var(--chalk)"
              strokeWidth="1.2"
              style={STILL}
            />
          )}
        </g>
      )
    }
    case 'line': {
      const old = what === 'old_filler'
      return (
        <path
          d={pathOf(shape.points)}
          stroke={old ? 'var(--dim)' : 'var(--chalk)'}
          strokeWidth={old ? 9 : 2.2}
          strokeOpacity={old ? 0.6 : 1}
          strokeDasharray={old ? '1 6' : '14 4'}
          style={STILL}
        />
      )
    }
    case 'outline': {
      const old = what === 'old_fracture'
      return (
        <path
          d={pathOf(shape.points, true)}
          stroke="var(--chalk)"
          strokeWidth="1.8"
          strokeDasharray={old ? '2 3' : '8 5'}
          fill={old ? 'var(--dim)' : 'var(--iron)'}
          fillOpacity="0.55"
          style={STILL}
        />
      )
    }
    case 'place': {
      const { x_mm, y_mm } = shape
      return (
        <g stroke="var(--chalk)" strokeWidth="1.8" style={STILL}>
          <circle cx={x_mm} cy={y_mm} r="1.6" fill="var(--chalk)" style={STILL} />
          <path d={`M${x_mm} ${y_mm}l0 -9`} style={STILL} />
        </g>
      )
    }
  }
}

/** A pin as it is set; one that cannot go there is crossed out. */
function Pin({ pin }: { pin: Schemas['PinOnFace'] }): ReactNode {
  const { x_mm, y_mm } = pin.at
  const radius = pin.across_mm / 2
  const out = pin.why_not !== ''
  return (
    <>
      <circle
        cx={x_mm}
        cy={y_mm}
        r={radius}
        stroke="var(--chalk)"
        strokeWidth="1.5"
        strokeDasharray={out ? '3 3' : undefined}
        fill={out ? 'none' : 'var(--slab)'}
        fillOpacity="0.6"
        style={STILL}
      />
      {out && (
        <path
          d={`M${x_mm - radius} ${y_mm - radius}l${2 * radius} ${2 * radius}m0 ${-2 * radius}l${-2 * radius} ${2 * radius}`}
          stroke="var(--chalk)"
          strokeWidth="2"
          style={STILL}
        />
      )}
    </>
  )
}
