import type { ReactNode } from 'react'

export interface PlateProps {
  children: ReactNode
  onPress: () => void
  large?: boolean
  testId?: string
}

/** The one thing to do next: one on a screen. */
export function Plate({ children, onPress, large = false, testId }: PlateProps): ReactNode {
  return (
    <span className={`plate ${large ? 'w-full' : ''}`} data-large={large || undefined}>
      <button type="button" onClick={onPress} data-testid={testId}>
        <span className="first-letter:uppercase">{children}</span>
      </button>
    </span>
  )
}
