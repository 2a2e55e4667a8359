import type { ReactNode } from 'react'
import { usePlate } from './focus'

export interface PlateProps {
  children: ReactNode
  onPress: () => void
  large?: boolean
  testId?: string
  /** On a phone it stands where it is, not under the thumb. */
  inPlace?: boolean
  /** It lights, unwraps or hands over: only a press on itself says so; Enter elsewhere brings the keys to it. */
  gate?: boolean
}

/** The one thing to do next: one on a screen. */
export function Plate({
  children,
  onPress,
  large = false,
  testId,
  inPlace = false,
  gate = false,
}: PlateProps): ReactNode {
  return (
    <span
      className={`plate ${large ? 'w-full' : ''} ${inPlace ? '' : 'in-reach'}`}
      data-large={large || undefined}
    >
      <button ref={usePlate(gate)} type="button" onClick={onPress} data-testid={testId}>
        <span className="first-letter:uppercase">{children}</span>
      </button>
    </span>
  )
}
