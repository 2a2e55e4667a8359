import { v4 } from 'uuid'

/** A new id. It is also made on a page that came over plain http, where the browser itself makes none. */
export const newId = (): string => v4()
