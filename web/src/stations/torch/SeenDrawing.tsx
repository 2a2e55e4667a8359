import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { SectionDrawing, type Section } from '../../ui/SectionDrawing'

/** The plate in section, its groove filled; what is drawn beside it is what went wrong. */
const PLATE = 'M2 26H34M62 26H94V50H2V26'
const GROOVE = 'M34 26L48 46L62 26'
const BEAD = 'M33 26Q48 12 63 26'

/** Strokes of each thing that is seen: what is iron, and what is wrong with it. */
const DRAWN: Readonly<Record<Schemas['Symptom'], Section>> = {
  no_flow: {
    iron: ['M2 26H94V50H2V26'],
    wrong: <path d="M48 26a9 9 0 1 1 .1 0M70 26a5 5 0 1 1 .1 0" />,
  },
  pinholes: {
    iron: [PLATE, GROOVE, BEAD],
    wrong: (
      <g fill="currentColor">
        <circle cx="43" cy="24" r="2" />
        <circle cx="51" cy="22" r="2.4" />
        <circle cx="49" cy="32" r="1.8" />
        <circle cx="56" cy="25" r="1.6" />
      </g>
    ),
  },
  toe_crack: { iron: [PLATE, GROOVE, BEAD], wrong: <path d="M64 26l4 6-3 5 5 7" /> },
  ran_on: {
    iron: ['M2 8H94V50H2V8', 'M8 29H48'],
    wrong: <path d="M48 29l7-4 6 7 8-6 7 5 8-5" />,
  },
  new_crack: { iron: [PLATE, GROOVE, BEAD], wrong: <path d="M84 26l-5 6 4 6-6 8M20 26l3 6-4 7" /> },
  blow_through: {
    iron: ['M2 18H36L43 40V42H2V18', 'M94 18H60L53 40V42H94V18'],
    wrong: <path d="M48 30v10M48 44q5 7 0 10q-5-3 0-10" />,
  },
  soot: {
    iron: [PLATE, GROOVE],
    wrong: <path d="M33 26Q48 12 63 26ZM36 14l2 3M44 9l1 4M53 9l-1 4M60 14l-2 3" fill="currentColor" />,
  },
  white_smoke: {
    iron: [PLATE, GROOVE, BEAD],
    wrong: <path d="M40 14q-5-4 0-8t0-5M50 12q-5-4 0-8t0-4M60 14q-5-4 0-8t0-5" />,
  },
  runs_away: {
    iron: ['M2 16H34M62 16H94V38H54M42 38H2V16', 'M34 16L42 38M62 16L54 38'],
    wrong: <path d="M42 38q-1 9 3 12q3 4 6 0q4-3 3-12M36 20q12 6 24 0" />,
  },
  undercut: {
    iron: ['M2 26H30M66 26H94V50H2V26', GROOVE],
    wrong: <path d="M36 25Q48 12 60 25M30 26q3 7 6-1M66 26q-3 7-6-1" />,
  },
  slag_in: {
    iron: [PLATE, GROOVE, BEAD],
    wrong: <path d="M44 30l6-3 2 5-5 2ZM52 22l5 1-2 4Z" fill="currentColor" />,
  },
  hard_spot: {
    iron: ['M2 32H94V50H2V32', 'M40 32q8-6 16 0'],
    wrong: <path d="M58 4v16l3 6 3-6V4M58 10l6 3M58 16l6 3M66 26q8-2 12-9m0 5v-5h-5" />,
  },
  popping: {
    iron: ['M4 34L44 22M4 44L46 30M44 22L50 28L46 30'],
    wrong: <path d="M54 26l8-3M60 14l5-6M66 20l10-5M68 28l12 2M60 34l6 8M54 34l2 6" />,
  },
  moved: {
    iron: ['M2 24H46V42H2V24'],
    wrong: <path d="M50 14H94V32H50V14M70 46V36m0 10l-4-5m4 5l4-5" />,
  },
}

/** What is seen, as it looks: iron in section, what is wrong in the heavier line. */
export function SeenDrawing({ seen }: { seen: Schemas['Symptom'] }): ReactNode {
  return <SectionDrawing {...DRAWN[seen]} />
}
