import type { ReactNode } from 'react'
import type { Station } from '../api/client'
import { Button } from '../ui/Button'
import { Plate } from '../ui/Plate'
import { useJob } from './JobContext'

export interface NextOrButtonProps {
  station: Station
  children: ReactNode
  onPress: () => void
  testId: string
  /** It lights, or hands over. */
  gate?: boolean
}

/** The plate while the next thing to do is at this station, else a button: one plate on a screen. */
export function NextOrButton({
  station,
  children,
  onPress,
  testId,
  gate = false,
}: NextOrButtonProps): ReactNode {
  const { view } = useJob()
  return view.standing.station === station ? (
    <Plate testId={testId} gate={gate} onPress={onPress}>
      {children}
    </Plate>
  ) : (
    <Button testId={testId} onPress={onPress}>
      {children}
    </Button>
  )
}
