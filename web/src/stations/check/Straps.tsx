import { useState, type ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { Field } from '../../job/Field'
import { Fold } from '../../ui/Fold'

/** A strap over each seam that does not stand what whole iron stands: how much steel, bolted where, what it takes. */
export function Straps({ straps }: { straps: readonly Schemas['StrapPlan'][] }): ReactNode {
  const [open, setOpen] = useState(false)
  if (straps.length === 0) return null
  const summary = straps.map((it) => `${it.letter} ${it.chosen ? 'strapped' : 'none'}`).join(', ')
  return (
    <div className="mt-2">
      <Fold title="A strap over it" summary={summary} open={open} onOpenChange={setOpen}>
        {straps.map((strap) => (
          <StrapOver key={strap.crack} strap={strap} />
        ))}
      </Fold>
    </div>
  )
}

function StrapOver({ strap }: { strap: Schemas['StrapPlan'] }): ReactNode {
  return (
    <section
      aria-label={`A strap over ${strap.letter}`}
      className="flex flex-col gap-2 border-t border-rule pt-2"
    >
      <p>
        <b>Seam {strap.letter}.</b> {strap.sentence}
      </p>
      {!strap.is_the_repair && (
        <div className="max-w-[320px]">
          <Field name={`crack.${strap.crack}.strap`} />
        </div>
      )}
      {strap.drawn != null && <StrapDrawing drawn={strap.drawn} letter={strap.letter} />}
      <p className="figure text-[19px]">{[strap.steel, strap.bolts].filter((it) => it !== '').join('. ')}</p>
      <p>
        <b>{strap.takes}</b> {strap.care.join(' ')}
      </p>
    </section>
  )
}

const [WIDTH, EDGE] = [520, 16]

/** From the side and from above: the strap over the seam, to one scale. */
function StrapDrawing({ drawn, letter }: { drawn: Schemas['StrapDrawn']; letter: string }): ReactNode {
  const { wall_mm, wide_mm, thick_mm, reach_mm, bolt_mm, bolts, pitch_mm, seam_mm } = drawn
  const scale = (WIDTH - 2 * EDGE) / (2.4 * reach_mm)
  const [strap, wall] = [Math.max(thick_mm * scale, 4), Math.max(wall_mm * scale, 8)]
  const middle = WIDTH / 2
  const wide = wide_mm * scale
  const seam = Math.min(seam_mm * scale, wide + 60)
  const [top, above] = [bolt_mm * scale, 30 + bolt_mm * scale + strap + wall]
  const height = above + seam + EDGE
  const at = Array.from({ length: bolts }, (_, n) => (n + 1) * pitch_mm * scale)
  const places = [...at.map((x) => middle - x), ...at.map((x) => middle + x)]
  const down = above + seam / 2
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${height}`}
      className="w-full max-w-[560px]"
      role="img"
      aria-label={`A flat over seam ${letter}, ${bolts} bolts on each side of it`}
    >
      <rect
        x={EDGE}
        y={top + strap}
        width={WIDTH - 2 * EDGE}
        height={wall}
        fill="var(--iron)"
        stroke="var(--chalk)"
        strokeWidth="1.6"
      />
      <path d={`M${middle} ${top + strap}V${top + strap + wall}`} stroke="var(--chalk)" strokeWidth="2.8" />
      <rect
        x={middle - reach_mm * scale}
        y={top}
        width={2 * reach_mm * scale}
        height={strap}
        fill="var(--raise)"
        stroke="var(--chalk)"
        strokeWidth="1.6"
      />
      {places.map((x) => (
        <rect
          key={x}
          x={x - bolt_mm * scale * 0.75}
          y={2}
          width={bolt_mm * scale * 1.5}
          height={top - 2}
          fill="var(--iron)"
          stroke="var(--chalk)"
          strokeWidth="1.4"
        />
      ))}
      <path
        d={`M${middle} ${above}V${above + seam}`}
        stroke="var(--chalk)"
        strokeWidth="2.8"
        strokeDasharray="7 4"
      />
      <rect
        x={middle - reach_mm * scale}
        y={down - wide / 2}
        width={2 * reach_mm * scale}
        height={wide}
        fill="var(--raise)"
        fillOpacity="0.7"
        stroke="var(--chalk)"
        strokeWidth="1.6"
      />
      {places.map((x) => (
        <circle
          key={x}
          cx={x}
          cy={down}
          r={(bolt_mm * scale) / 2}
          fill="var(--iron)"
          stroke="var(--chalk)"
          strokeWidth="1.4"
        />
      ))}
    </svg>
  )
}
