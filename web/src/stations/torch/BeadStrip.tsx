import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { useWidth } from '../../ui/useWidth'

type Seam = Schemas['SeamStrip']
type Bead = Schemas['StripBead']

export interface BeadStripProps {
  seam: Seam
  /** The number of the bead that comes next. */
  next: number | null
}

/** As wide as it is drawn: what is written on it stays as large as the rest. */
const USUAL = 860
const EDGE = 20
const ROW = 30
const HIGH = 24

const isNext = (bead: Bead, next: number | null): boolean =>
  next !== null && !bead.laid && bead.number === next

/** Laid metal: one ripple after the other. */
const ripples = (x: number, y: number, wide: number, high: number): string => {
  const count = Math.max(1, Math.floor(wide / 13))
  const step = wide / count
  return Array.from(
    { length: count },
    (_, at) => `M${x + step * (at + 0.3)} ${y + 4}q${high / 3.4} ${(high - 8) / 2} 0 ${high - 8}`,
  ).join('')
}

/** A stop-hole that is filled when its seam is: to be filled, next, or full. */
function HoleBead({ x, y, bead, here }: { x: number; y: number; bead: Bead; here: boolean }): ReactNode {
  return (
    <g
      fill="none"
      stroke={bead.laid || here ? 'var(--chalk)' : 'var(--scribe)'}
      strokeWidth={here ? 3 : 1.5}
      data-testid="strip-hole"
    >
      <circle cx={x} cy={y} r="11" fill="var(--iron)" />
      {bead.laid && <path d={`M${x - 5} ${y - 5}q4 5 0 10m5 -11q4 6 0 12m5 -11q4 5 0 10`} />}
      {!bead.laid && bead.number > 0 && (
        <text
          className="figure"
          x={x}
          y={y + 5}
          textAnchor="middle"
          fontSize="15"
          fill="var(--ash)"
          stroke="none"
        >
          {bead.number}
        </text>
      )}
    </g>
  )
}

/** What an end looks like on the strip: a hole, a tip, an edge, metal that goes on. */
function End({ x, y, what, open }: { x: number; y: number; what: string; open: boolean }): ReactNode {
  if (open) return <path d={`M${x - 3} ${y - 14}v28m6 -28v28`} stroke="var(--chalk)" strokeWidth="2.2" />
  if (what === 'hole')
    return <circle cx={x} cy={y} r="9" fill="none" stroke="var(--chalk)" strokeWidth="2.2" />
  if (what === 'branch')
    return <path d={`M${x} ${y}l-9 -9m9 9l-9 9`} stroke="var(--chalk)" strokeWidth="2.2" fill="none" />
  return <path d={`M${x - 8} ${y}h16`} stroke="var(--chalk)" strokeWidth="2.2" strokeDasharray="3 3" />
}

/** One seam with its beads, from its first end to its last: layers from the root up. */
export function BeadStrip({ seam, next }: BeadStripProps): ReactNode {
  const [box, width] = useWidth<HTMLElement>(USUAL, 280)
  const scale = (width - 2 * EDGE - 44) / seam.length_mm
  const x = (mm: number) => EDGE + 22 + mm * scale
  // A layer whose beads lie beside each other has a line for each.
  const rows = seam.layers.flatMap((layer) =>
    [...new Set(layer.beads.map((bead) => bead.beside))].map((beside) => ({
      key: `${layer.layer}.${layer.side}.${beside}`,
      beads: layer.beads.filter((bead) => bead.beside === beside),
      words: layer.words,
    })),
  )
  const most = Math.max(...seam.layers.map((layer) => layer.layer))
  const inHand = rows.findIndex((row) => row.beads.some((bead) => isNext(bead, next)))
  // The layer in hand, what lies under it and what comes on top: more of a deep groove would be too small to read.
  const from = Math.max(0, Math.min(inHand < 0 ? 0 : inHand - 1, rows.length - 3))
  const shown = rows.slice(from, from + 3).toReversed()
  const high = shown.length * ROW + 34
  const middle = 6 + (shown.length - 0.5) * ROW
  return (
    <figure className="m-0 w-full" ref={box}>
      <svg viewBox={`0 0 ${width} ${high}`} className="w-full" role="img" aria-label={spoken(seam, next)}>
        {shown.map((row, line) => {
          const y = 6 + line * ROW
          return (
            <g key={row.key} data-testid="strip-row">
              {row.beads.map((bead) => {
                const here = isNext(bead, next)
                const [left, wide] = [x(bead.from_mm) + 2, (bead.to_mm - bead.from_mm) * scale - 4]
                const arrow = bead.leftward
                  ? `M${left + wide - 8} ${y + HIGH / 2}H${left + 12}m10 -6l-10 6 10 6`
                  : `M${left + 8} ${y + HIGH / 2}H${left + wide - 12}m-10 -6l10 6 -10 6`
                return (
                  <g
                    key={bead.along}
                    fill="none"
                    stroke={bead.laid || here ? 'var(--chalk)' : 'var(--scribe)'}
                    strokeWidth={here ? 3 : 1.5}
                  >
                    <rect x={left} y={y} width={Math.max(2, wide)} height={HIGH} fill="var(--iron)" />
                    {bead.laid && <path d={ripples(left, y, Math.max(2, wide), HIGH)} />}
                    {here && wide > 30 && <path d={arrow} />}
                    {bead.number > 0 && wide > 16 && (!here || wide <= 30) && !bead.laid && (
                      <text
                        className="figure"
                        x={left + wide / 2}
                        y={y + 19}
                        textAnchor="middle"
                        fontSize="17"
                        fill="var(--ash)"
                        stroke="none"
                      >
                        {bead.number}
                      </text>
                    )}
                  </g>
                )
              })}
            </g>
          )
        })}
        <path d={`M${EDGE} ${6 + shown.length * ROW - 4}H${width - EDGE}`} stroke="var(--scribe)" />
        <End x={EDGE + 4} y={middle - 4} what={seam.ends[0] ?? ''} open={seam.open[0] === true} />
        <End x={width - EDGE - 4} y={middle - 4} what={seam.ends[1] ?? ''} open={seam.open[1] === true} />
        {seam.holes.map((bead) => (
          <HoleBead
            key={bead.from_mm}
            x={bead.from_mm > 0 ? width - EDGE - 4 : EDGE + 4}
            y={middle - 4}
            bead={bead}
            here={isNext(bead, next)}
          />
        ))}
        <g fontSize="16" fill="var(--ash)">
          <text x="0" y={high - 6}>
            {seam.ends[0]} {seam.letter}
          </text>
          <text x={width} y={high - 6} textAnchor="end">
            {seam.ends[1]}
          </text>
          {rows.length > 1 && inHand >= 0 && (
            <text x={width / 2} y={high - 6} textAnchor="middle">
              {rows[inHand]?.words.replace(/^layer \d+/, (layer) => `${layer} of ${most}`)}
            </text>
          )}
        </g>
      </svg>
    </figure>
  )
}

/** The strip for whoever does not see it. */
const spoken = (seam: Seam, next: number | null): string => {
  const beads = [...seam.layers.flatMap((layer) => layer.beads), ...seam.holes]
  const laid = beads.filter((bead) => bead.laid).length
  const layer = seam.layers.find((it) => it.beads.some((bead) => isNext(bead, next)))
  const here = layer?.beads.find((bead) => isNext(bead, next))
  const to =
    layer !== undefined && here !== undefined
      ? `, the next at place ${here.along} of layer ${layer.layer}`
      : seam.holes.some((bead) => isNext(bead, next))
        ? ', the next in its stop-hole'
        : ''
  return `Seam ${seam.letter}: ${laid} of ${beads.length} beads laid${to}`
}
