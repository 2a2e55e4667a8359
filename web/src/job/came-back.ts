import type { Schemas } from '../api/client'

/** A strip of a part that came back, as far as the break bench is told of it in its address. */
export interface Begun {
  name: string
  iron: string
  joined: string
  thickness: string
  broke: string
}

/** Where the break bench begins with what is known of a part that came back. */
export function toTheBench({ name, iron, joined, thickness, broke }: Schemas['CameBack']): string {
  const told = new URLSearchParams({ coupon: name, iron, joined, thickness, broke: broke ?? '' })
  return `/ledger?${told}`
}

/** What an address says of one; nothing where it says nothing. */
export function fromAJob(search: URLSearchParams): Begun | null {
  const name = search.get('coupon')
  if (name === null) return null
  const of = (key: string) => search.get(key) ?? ''
  return { name, iron: of('iron'), joined: of('joined'), thickness: of('thickness'), broke: of('broke') }
}
