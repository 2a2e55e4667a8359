import type { ReactNode } from 'react'
import { Link } from 'react-router'

/** In place of a job that is not there, or cannot be read. */
export function CannotBeShown({ why }: { why: string }): ReactNode {
  return (
    <main className="p-5">
      <h1 className="text-[35px]">This job cannot be shown</h1>
      <p className="py-3">{why}</p>
      <Link to="/" className="underline">
        Back to the rack
      </Link>
    </main>
  )
}
