import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { heatColour, type Theme } from '../../quantity/heat-colour'
import { strokes } from './strokes'

type Thing = Schemas['Thing']

const HIGH = 72

/** A thing as it stands on its shelf; what the jobs will take of it is hatched. */
export function Drawn({
  thing,
  shelf,
  theme,
}: {
  thing: Thing
  shelf: Schemas['Shelf']
  theme: Theme
}): ReactNode {
  switch (shelf) {
    case 'rods':
      return thing.kind.endsWith('_wire') ? (
        <Spool />
      ) : thing.kind === 'flux' ? (
        <Sack />
      ) : (
        <Bundle thing={thing} />
      )
    case 'gas':
      return <Cylinder thing={thing} />
    case 'packing':
      return thing.kind === 'blanket' ? <Roll /> : <Sack />
    case 'stitching':
    case 'bench':
      return <Heads thing={thing} />
    case 'reading':
      return thing.kind === 'stick' ? <Stick thing={thing} theme={theme} /> : <Box />
    case 'wear':
      return <Box />
  }
}

/** Rods as strokes: full what stays, dotted what is spoken for. */
function Bundle({ thing }: { thing: Thing }): ReactNode {
  if (thing.kind === 'unnamed') {
    return (
      <svg width="40" height={HIGH} aria-hidden>
        <rect
          x="4"
          y="2"
          width="18"
          height={HIGH - 3}
          fill="none"
          stroke="var(--chalk)"
          strokeWidth="2"
          strokeDasharray="4 4"
        />
      </svg>
    )
  }
  const { kept, taken, uncounted } = strokes(thing.amount, thing.spoken_for)
  const all = kept + taken
  if (uncounted || all === 0) {
    return (
      <svg width="40" height={HIGH} aria-hidden>
        {[4, 11, 18].map((x) => (
          <line
            key={x}
            x1={x}
            y1="2"
            x2={x}
            y2={HIGH}
            stroke="var(--scribe)"
            strokeWidth="3"
            strokeDasharray={all === 0 && !uncounted ? '2 6' : undefined}
          />
        ))}
      </svg>
    )
  }
  return (
    <svg width={all * 6 + 4} height={HIGH} aria-hidden>
      {Array.from({ length: all }, (_, at) => (
        <line
          key={at}
          x1={3 + at * 6}
          y1="2"
          x2={3 + at * 6}
          y2={HIGH}
          stroke={at < kept ? 'var(--chalk)' : 'var(--ash)'}
          strokeWidth="3.4"
          strokeDasharray={at < kept ? undefined : '3 4'}
        />
      ))}
    </svg>
  )
}

/** A cylinder with its level; what is spoken for lies hatched on top of what stays. */
function Cylinder({ thing }: { thing: Thing }): ReactNode {
  const share = thing.share ?? 0
  const spoken =
    thing.amount == null || thing.amount === 0 ? 0 : Math.min(1, thing.spoken_for / thing.amount) * share
  const body = 54
  const top = 72 - 1 - body * share
  return (
    <svg width="44" height={HIGH} aria-hidden>
      <defs>
        <pattern
          id="spoken-for"
          width="6"
          height="6"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <line x1="0" y1="0" x2="0" y2="6" stroke="var(--chalk)" strokeWidth="1.6" />
        </pattern>
      </defs>
      {thing.share != null && (
        <>
          <rect x="6" y={top} width="28" height={body * share} fill="var(--scribe)" opacity="0.55" />
          <rect x="6" y={top} width="28" height={body * spoken} fill="url(#spoken-for)" />
        </>
      )}
      <path
        d="M5.5 71.5V27c0-8 6-9 9-10V9h11v8c3 1 9 2 9 10v44.5"
        fill="none"
        stroke="var(--chalk)"
        strokeWidth="1.6"
      />
    </svg>
  )
}

/** A temperature stick: its band is the colour iron has at the heat it melts at. */
function Stick({ thing, theme }: { thing: Thing; theme: Theme }): ReactNode {
  return (
    <svg width="26" height={HIGH} aria-hidden>
      <path d="M4 71V12l7-10 7 10v59" fill="none" stroke="var(--chalk)" strokeWidth="1.6" />
      {thing.melts_c != null && (
        <rect x="7" y="24" width="8" height="36" fill={heatColour(thing.melts_c, theme)} />
      )}
    </svg>
  )
}

/** Pins, discs, drills from the end, as large as they are to each other. */
function Heads({ thing }: { thing: Thing }): ReactNode {
  const { kept, taken, uncounted } = strokes(thing.amount, thing.spoken_for)
  const shown = Math.min(5, Math.max(1, kept + taken))
  const radius = Math.min(16, Math.max(6, (thing.size_mm ?? 8) * 1.1))
  const step = radius * 2 + 5
  return (
    <svg width={shown * step + 4} height={radius * 2 + 6} aria-hidden>
      {Array.from({ length: shown }, (_, at) => (
        <circle
          key={at}
          cx={2 + radius + at * step}
          cy={radius + 3}
          r={radius}
          fill="none"
          stroke={uncounted || kept + taken === 0 ? 'var(--scribe)' : 'var(--chalk)'}
          strokeWidth="1.8"
          strokeDasharray={at < kept || uncounted ? undefined : '3 3'}
        />
      ))}
    </svg>
  )
}

const Sack = (): ReactNode => (
  <svg width="62" height="52" aria-hidden>
    <path
      d="M3 51V16C3 6 10 3 18 3h26c8 0 15 3 15 13v35"
      fill="none"
      stroke="var(--chalk)"
      strokeWidth="1.6"
    />
    <rect x="4" y="26" width="54" height="25" fill="var(--scribe)" opacity="0.4" />
  </svg>
)

const Roll = (): ReactNode => (
  <svg width="62" height="44" aria-hidden>
    <circle cx="31" cy="23" r="20" fill="none" stroke="var(--chalk)" strokeWidth="1.6" />
    <circle cx="31" cy="23" r="12" fill="none" stroke="var(--ash)" strokeWidth="1.2" />
    <circle cx="31" cy="23" r="4" fill="none" stroke="var(--ash)" strokeWidth="1.2" />
  </svg>
)

const Spool = (): ReactNode => (
  <svg width="62" height="56" aria-hidden>
    <circle cx="31" cy="29" r="26" fill="none" stroke="var(--chalk)" strokeWidth="1.8" />
    <circle
      cx="31"
      cy="29"
      r="17"
      fill="none"
      stroke="var(--ash)"
      strokeWidth="5"
      strokeDasharray="1.5 1.5"
    />
    <circle cx="31" cy="29" r="6" fill="none" stroke="var(--chalk)" strokeWidth="1.6" />
  </svg>
)

const Box = (): ReactNode => (
  <svg width="56" height="40" aria-hidden>
    <path d="M2 39V10h50v29M2 18h50" fill="none" stroke="var(--chalk)" strokeWidth="1.6" />
  </svg>
)
