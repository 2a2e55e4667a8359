import type { ReactNode } from 'react'

export interface PlateProps {
  children: ReactNode
  onPress: () => void
  large?: boolean
  testId?: string
  /** On a phone it stands where it is, not under the thumb. */
  inPlace?: boolean
}

/** The one thing to do next: one on a screen. */
export function Plate({ children, onPress, large = false, testId, inPlace = false }: PlateProps): ReactNode {
  return (
    <span
      className={`plate ${large ? 'w-full' : ''} ${inPlace ? '' : 'in-reach'}`}
      data-large={large || undefined}
    >
      <button type="button" onClick={onPress} data-testid={testId}>
        <span className="first-letter:uppercase">{children}</span>
      </button>
    </span>
  )
}
