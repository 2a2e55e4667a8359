import type { Schemas } from '../api/client'

/** Which line it is, in a word of its own. */
export const stepKey = ({ what, at, number }: Schemas['WorkStep']): string =>
  `${what} ${at ?? ''} ${number ?? ''}`
