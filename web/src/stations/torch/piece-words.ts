const DONE: Readonly<Record<string, string>> = {
  bead: 'Bead done',
  pin: 'Pin set',
  strap: 'Strap fitted',
  fill: 'Seam filled',
}

/** What is pressed when one piece of the work is done. */
export const pieceDone = (piece: string): string => DONE[piece] ?? 'Bead done'
