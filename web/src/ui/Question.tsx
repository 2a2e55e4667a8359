import type { ReactNode } from 'react'

/** A question that is answered by a press on one of its answers: keys that lead here stand before them all, on none. */
export function Question({ children }: { children: ReactNode }): ReactNode {
  return (
    <div tabIndex={-1} data-question="">
      {children}
    </div>
  )
}
