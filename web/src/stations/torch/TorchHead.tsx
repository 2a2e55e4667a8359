import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { useJob, useLive } from '../../job/JobContext'
import { AtTheJoint } from './AtTheJoint'
import { Temperature } from './Temperature'
import { WindowBar } from './WindowBar'

export interface TorchHeadProps {
  torch: Schemas['TorchPlan']
  covered: boolean
  /** What is set, fitted or filled cold is not heated. */
  pins: boolean
  /** Nobody is told where the window is. */
  alone: boolean
  /** The clock that runs down, and what is pressed beside it. */
  children: ReactNode
}

/** How hot it is, read from across the bench: the part, the joint, the window. */
export function TorchHead({ torch, covered, pins, alone, children }: TorchHeadProps): ReactNode {
  const { view } = useJob()
  const { live } = useLive()
  const window = torch.window ?? null
  const ends = torch.window_ends ?? null
  return (
    <div className="grid items-start gap-x-8 gap-y-3 bench:grid-cols-[auto_minmax(0,1fr)_auto]">
      {window === null ? (
        <h2 className="text-[40px] leading-[44px]">{view.plan.heat?.sentence}</h2>
      ) : (
        <Temperature live={live} bare={alone} />
      )}
      {window !== null && !covered && !alone && (
        <div className="flex flex-col gap-1">
          {!pins && <AtTheJoint live={live} window={window} />}
          {live !== null && live.place !== 'no_window' && ends !== null && (
            <WindowBar live={live} low={window[0]} high={window[1]} ends={ends} />
          )}
        </div>
      )}
      {window !== null && !pins && !covered && (
        <div className="flex flex-col items-start gap-2">{children}</div>
      )}
    </div>
  )
}
