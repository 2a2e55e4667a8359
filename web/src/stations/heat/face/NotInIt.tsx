import type { ReactNode } from 'react'

export interface NotInItProps {
  words: string
  /** Places that were tried to begin with; nothing where none was. */
  tried?: number | undefined
}

/** What to mind at any flame, and, folded in, what the face that is reckoned leaves out. */
export function NotInIt({ words, tried }: NotInItProps): ReactNode {
  return (
    <>
      <p className="mt-1">Heat slowly, look and listen at each tip.</p>
      <details className="small text-ash">
        <summary className="flex min-h-11 items-center">What is not in it</summary>
        <p>{words}</p>
        {tried !== undefined && <p>{tried} places were tried, each as strong and as weak as it may be.</p>}
      </details>
    </>
  )
}
