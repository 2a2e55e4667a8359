import type { ReactNode } from 'react'
import type { Live } from '../../api/client'
import { useShop } from '../../job/ShopContext'
import { inUnits } from '../../quantity/show'

/** How hot, in or out of the window, which way it goes: by number, word and shape. */
export function Temperature({ live }: { live: Live | null }): ReactNode {
  const { units } = useShop()
  if (live === null) return <h2 className="text-[40px] leading-[44px]">No reading yet</h2>
  const shown = inUnits(live, units)
  const trend = units === 'imperial' ? live.trend_imperial : live.trend_metric
  return (
    <div>
      <p className="label mb-2 text-[16px]">part, coldest far corner</p>
      <div className="flex items-end gap-4">
        <span className="figure text-[min(158px,46vw)] leading-[0.8]" data-testid="torch-now">
          {shown.number}
        </span>
        <span className="flex flex-col gap-1 pb-1 text-[17px] leading-[21px]">
          <span className="figure text-[40px] leading-[44px]">{shown.unit}</span>
          <b data-testid="torch-place">{live.place_words}</b>
          <span>{trend}</span>
          <span className="text-ash">
            {live.clock.number} {live.clock.unit} on the job clock
          </span>
        </span>
      </div>
    </div>
  )
}
