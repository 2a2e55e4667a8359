import type { Schemas } from '../../../api/client'

/** A thing of the trade that lies on a face. */
export type Thing = 'crack' | 'face' | 'hard_spot' | 'neighbour' | Schemas['MarkKind']

/** How each is drawn. */
export const DRAWN_AS: Readonly<Record<Thing, 'line' | 'circle' | 'outline' | 'place'>> = {
  crack: 'line',
  // Its own outline.
  face: 'outline',
  hard_spot: 'circle',
  neighbour: 'place',
  bolt_hole: 'circle',
  bore: 'circle',
  machined_edge: 'line',
  missing_piece: 'outline',
  reading_place: 'place',
  old_filler: 'line',
  old_fracture: 'outline',
  feature: 'place',
  opening: 'outline',
  thick_place: 'circle',
}

interface Put {
  id: Thing
  /** A stroke or two that look like it. */
  drawing: string
  /** It is among the first. */
  often: boolean
}

/** In the order of their buttons: a further kind of mark is asked for here, its words come with the tables. */
const PUT: Readonly<Record<Exclude<Thing, 'face'>, Omit<Put, 'id'>>> = {
  crack: { drawing: 'M3 18l5 -5 4 2 4 -7 5 -3', often: true },
  bolt_hole: { drawing: 'M12 5a7 7 0 1 0 0.01 0M12 1v22M1 12h22', often: true },
  hard_spot: { drawing: 'M12 4a8 8 0 1 0 0.01 0M8 8l8 8M16 8l-8 8', often: true },
  missing_piece: { drawing: 'M4 4h16v9l-5 -2 -4 5 -3 -2 -4 3z', often: true },
  reading_place: { drawing: 'M12 3v11M12 14a4 4 0 1 0 0.01 0', often: true },
  bore: { drawing: 'M12 3a9 9 0 1 0 0.01 0M12 8a4 4 0 1 0 0.01 0', often: false },
  machined_edge: {
    drawing: 'M3 8h18M5 8l-2 4M10 8l-2 4M15 8l-2 4M20 8l-2 4',
    often: false,
  },
  old_filler: { drawing: 'M3 15q3 -6 6 0q3 -6 6 0q3 -6 6 0', often: false },
  opening: { drawing: 'M3 4h18v16H3zM7 8h10v8H7z', often: false },
  thick_place: { drawing: 'M12 3a9 9 0 1 0 0.01 0M7 9l8 8M9 6l9 9', often: false },
  feature: { drawing: 'M12 3v18M6 9l6 -6l6 6M5 21h14', often: false },
  old_fracture: { drawing: 'M4 5l16 -1v15l-16 1zM4 12l8 -1M8 20l8 -9', often: false },
  neighbour: { drawing: 'M12 2v20M4 6l16 12M20 6L4 18', often: false },
}

export const THINGS: readonly Put[] = (Object.keys(PUT) as (keyof typeof PUT)[]).map((id) => ({
  id,
  ...PUT[id],
}))

/** What is asked of each beside where it lies. */
export const ASKED_OF: Readonly<Record<Schemas['MarkKind'], readonly Schemas['MarkField'][]>> = {
  bolt_hole: ['name'],
  bore: ['name'],
  machined_edge: ['name'],
  missing_piece: ['name', 'thickness', 'closed_by'],
  reading_place: ['name'],
  old_filler: ['name', 'filler'],
  old_fracture: [],
  feature: ['kind', 'datum', 'nominal', 'tolerance'],
  opening: ['name'],
  thick_place: ['name', 'thickness'],
}

export const isMark = (what: string): what is Schemas['MarkKind'] => Object.hasOwn(ASKED_OF, what)
