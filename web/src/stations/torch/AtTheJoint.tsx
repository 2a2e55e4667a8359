import type { ReactNode } from 'react'
import type { Live } from '../../api/client'
import { useJob } from '../../job/JobContext'
import { useShop } from '../../job/ShopContext'
import { inUnits, temperature } from '../../quantity/show'

export interface AtTheJointProps {
  live: Live | null
  window: readonly [number, number] | null
}

/** The joint, kept apart from the part: what was read there, and what is worked out for where the next bead goes. */
export function AtTheJoint({ live, window }: AtTheJointProps): ReactNode {
  const { view } = useJob()
  const { units } = useShop()
  const joint = view.plan.torch?.joint ?? null
  const bead = live?.bead ?? null
  return (
    <div className="flex flex-col gap-2">
      {joint !== null && (
        <div data-testid="torch-joint">
          <p className="label text-[16px]">joint, read at {joint.at}</p>
          <p className="figure text-[min(88px,22vw)] leading-[0.95]">
            {inUnits(joint, units).number}
            <span className="text-[30px]"> {inUnits(joint, units).unit}</span>
          </p>
          <p className="text-[17px] font-semibold">{joint.words}</p>
        </div>
      )}
      {bead !== null && window !== null && (
        <div data-testid="torch-there">
          <p className="label text-[16px]">where bead {bead.number} goes, worked out</p>
          <p className={`figure leading-[0.95] ${joint === null ? 'text-[min(88px,22vw)]' : 'text-[40px]'}`}>
            {temperature(bead.there_c, units)[0]}
            <span className={joint === null ? 'text-[30px]' : 'text-[20px]'}>
              {' '}
              {temperature(bead.there_c, units)[1]}
            </span>
          </p>
          <p className="text-[17px] font-semibold">
            {bead.wait_s >= 1 ? 'Too hot there: wait' : 'It may start'}
          </p>
        </div>
      )}
    </div>
  )
}
