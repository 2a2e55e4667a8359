import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { SectionDrawing, type Section } from '../../ui/SectionDrawing'

/** The plate in section, its groove filled; what is drawn beside it is what was found. */
const PLATE = 'M2 26H34M62 26H94V50H2V26'
const GROOVE = 'M34 26L48 46L62 26'
const BEAD = 'M33 26Q48 12 63 26'
const SEAM = [PLATE, GROOVE, BEAD]

const DRAWN: Readonly<Record<Schemas['Found'], Section>> = {
  good: { iron: SEAM, wrong: <path d="M38 36l8 7 14-18" /> },
  crack: { iron: SEAM, wrong: <path d="M64 26l4 6-3 5 5 7M48 18l-2 6 4 5-3 6" /> },
  pore: {
    iron: SEAM,
    wrong: (
      <g fill="currentColor">
        <circle cx="43" cy="24" r="2" />
        <circle cx="51" cy="22" r="2.4" />
        <circle cx="49" cy="32" r="1.8" />
        <circle cx="56" cy="25" r="1.6" />
      </g>
    ),
  },
  not_wetted: { iron: [PLATE, BEAD], wrong: <path d="M34 26L48 46M36 26L48 42L58 29" /> },
  notch: { iron: [PLATE, GROOVE, BEAD], wrong: <path d="M28 26l5 6 4-7M59 25l4 7 5-6" /> },
  low_spot: { iron: [PLATE, GROOVE], wrong: <path d="M34 26Q48 38 62 26" /> },
  hard_edge: { iron: SEAM, wrong: <path d="M64 22L88 4M68 26l-4-4 4-3M72 20l4 3M78 15l4 3M66 29q6 2 8 8" /> },
  out_of_line: {
    iron: ['M2 24H46V42H2V24'],
    wrong: <path d="M50 14H94V32H50V14M70 46V36m0 10l-4-5m4 5l4-5" />,
  },
  leak: { iron: SEAM, wrong: <path d="M48 46q-5 5 0 8q5-3 0-8M60 30q-3 4 0 6q3-2 0-6" /> },
  pin_loose: {
    iron: ['M2 22H36M60 22H94V50H2V22'],
    wrong: <path d="M38 8h20v8h-4v26h-12V16h-4V8M30 10q-4 4 0 8M66 10q4 4 0 8" />,
  },
  residue_left: {
    iron: SEAM,
    wrong: <path d="M32 24l5-7 6 2 4-6 6 5 5-1 6 8ZM70 25l3-4 4 4ZM24 25l2-3 3 3" fill="currentColor" />,
  },
}

/** What was found, as it looks: iron in section, what is wrong in the heavier line. */
export function FoundDrawing({ found }: { found: Schemas['Found'] }): ReactNode {
  return <SectionDrawing {...DRAWN[found]} />
}
