import type { ReactNode } from 'react'
import { Link } from 'react-router'

/** What this shop has learned, with a way to the cases it was learned from. */
export function InTheLedger({ words }: { words: string }): ReactNode {
  return (
    <Link to="/ledger#learned" className="inline-flex min-h-11 items-center underline">
      {words}
    </Link>
  )
}
