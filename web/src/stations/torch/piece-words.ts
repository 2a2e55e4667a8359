const DONE: Readonly<Record<string, string>> = {
  bead: 'Bead done',
  pin: 'Pin set',
  strap: 'Strap fitted',
  fill: 'Seam filled',
}

/** What is pressed when one piece of the work is done. */
export const pieceDone = (piece: string): string => DONE[piece] ?? 'Bead done'

/** The same for a bead of an order: the first is said as it is laid, and while the part soaks it is waited for. */
export const beadDone = (number: number, soaking: boolean): string =>
  number > 1 ? `Bead ${number} done` : soaking ? 'Wait. Then: first bead laid' : 'First bead laid'

/** What is pressed of a seam that is filled in one flow: at its beginning, and at its end. */
export const flowDone = (begins: boolean): string => (begins ? 'Filling begun' : 'Seam filled')
