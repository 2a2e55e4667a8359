import type { ReactNode } from 'react'

/** The mark of the application: a hexagonal crystal seen from above. */
export function Crystal(): ReactNode {
  return (
    <svg
      width="28"
      height="30"
      viewBox="0 0 28 30"
      fill="none"
      stroke="currentColor"
      strokeWidth="1.6"
      aria-hidden
    >
      <path d="M14 1.5 26 8v14l-12 6.5L2 22V8z" />
      <path d="M14 15v13.5M14 15 2 8M14 15 26 8" />
    </svg>
  )
}
