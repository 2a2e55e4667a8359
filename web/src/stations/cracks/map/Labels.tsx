import { memo, type ReactNode } from 'react'
import type { FaceOnMap } from './edit'
import { halfWay } from './view'

export interface LabelsProps {
  face: FaceOnMap
  /** Pixels to the millimetre. */
  scale: number
  chosen: string | null
  /** A phone: larger letters, and fewer of them. */
  narrow: boolean
}

/** A moat of the ground round letters, so that they are read over lines and pictures. */
const MOAT = { paintOrder: 'stroke', stroke: 'var(--iron)', strokeWidth: 5, strokeLinejoin: 'round' } as const

/** Letters, drills and names, in pixels: they keep their size however near one looks. */
export const Labels = memo(function Labels({ face, scale, chosen, narrow }: LabelsProps): ReactNode {
  const px = (mm: number) => mm * scale
  const letters = narrow ? 16 : 14
  // What lies far right is written about on its left.
  const { left_mm, right_mm } = face.frame
  const farRight = (x_mm: number) => x_mm > left_mm + 0.66 * (right_mm - left_mm)
  return (
    <g fill="var(--chalk)" pointerEvents="none">
      {face.lines.map((line) => {
        const half = line.from_behind ? null : halfWay(line.points)
        if (half === null) return null
        const [x, y] = [px(half.place.x_mm) + 20 * half.across.x, px(half.place.y_mm) + 20 * half.across.y]
        return (
          <g key={line.crack}>
            <text x={x} y={y + 9} textAnchor="middle" className="words" fontSize="26" style={MOAT}>
              {line.letter}
            </text>
            {line.crack === chosen && (
              <text
                x={half.across.x < -0.5 ? x - 14 : x + 14}
                y={y + 5}
                textAnchor={half.across.x < -0.5 ? 'end' : 'start'}
                fontSize={letters + 1}
                fontWeight="600"
                style={MOAT}
              >
                {line.length_words}
              </text>
            )}
          </g>
        )
      })}
      {face.pins
        .filter((pin) => pin.crack === chosen && px(pin.across_mm) >= 18)
        .map((pin) => (
          <text
            key={pin.number}
            x={px(pin.at.x_mm)}
            y={px(pin.at.y_mm) + 4}
            textAnchor="middle"
            className="figure"
            fontSize="14"
            style={MOAT}
          >
            {pin.turn}
          </text>
        ))}
      {face.holes.map((hole) => {
        const [x, y] = [px(hole.at.x_mm), px(hole.at.y_mm)]
        const side = farRight(hole.at.x_mm) ? -1 : 1
        const out = side * (px(hole.drill_mm / 2) + 10)
        return (
          <text
            key={`${hole.crack} ${hole.side}`}
            x={x + out}
            y={y + 20}
            textAnchor={side < 0 ? 'end' : 'start'}
            fontSize={letters}
            style={MOAT}
          >
            {hole.words}
            {hole.crack === chosen &&
              hole.measured.map((words) => (
                <tspan key={words} x={x + out} dy={letters + 4} fill="var(--ash)">
                  {words}
                </tspan>
              ))}
          </text>
        )
      })}
      {face.marks.map((mark) => {
        const place =
          mark.shape.kind === 'circle' || mark.shape.kind === 'place' ? mark.shape : mark.shape.points[0]
        // Where there is little room only what is chosen has its name.
        if (place === undefined || (narrow && mark.id !== chosen)) return null
        const out = mark.shape.kind === 'circle' ? px(mark.shape.radius_mm) : 4
        return (
          <text
            key={mark.id}
            x={px(place.x_mm) + (farRight(place.x_mm) ? -out - 6 : out + 6)}
            textAnchor={farRight(place.x_mm) ? 'end' : 'start'}
            y={px(place.y_mm) - 6}
            fontSize={letters}
            fill="var(--ash)"
            style={MOAT}
          >
            {mark.name}
          </text>
        )
      })}
      {face.tacks.map((tack) => (
        <text
          key={`${tack.crack} ${tack.number}`}
          x={px(tack.at.x_mm) - 20}
          y={px(tack.at.y_mm) + 5}
          fontSize={letters + 1}
          fontWeight="600"
          style={MOAT}
        >
          {tack.number}
        </text>
      ))}
      {face.clashes.map((clash) => (
        <path
          key={clash.sentence}
          transform={`translate(${px(clash.at.x_mm)} ${px(clash.at.y_mm) - 22})`}
          d="M0 -11L11 9H-11Z"
          fill="var(--iron)"
          stroke="var(--chalk)"
          strokeWidth="2"
        />
      ))}
    </g>
  )
})
