import type { ReactNode } from 'react'
import type { Live } from '../../api/client'
import { useShop } from '../../job/ShopContext'
import { inUnits, minutes } from '../../quantity/show'

/** What a pad read before that is not of now. */
const OLD_MIN = 2

/** How hot, in or out of the window, which way it goes: by number, word and shape. `bare`: only what is read. */
export function Temperature({ live, bare = false }: { live: Live | null; bare?: boolean }): ReactNode {
  const { units } = useShop()
  if (live === null) return <h2 className="text-[40px] leading-[44px]">No reading yet</h2>
  const shown = inUnits(live, units)
  const trend = units === 'imperial' ? live.trend_imperial : live.trend_metric
  return (
    <div>
      <p className="label mb-2 text-[16px]">part, {live.pad_at}</p>
      <div className="flex items-end gap-4">
        <span className="figure text-[min(158px,46vw)] leading-[0.8]" data-testid="torch-now">
          {shown.number}
        </span>
        <span className="flex flex-col gap-1 pb-1 text-[17px] leading-[21px]">
          <span className="figure text-[40px] leading-[44px]">{shown.unit}</span>
          {!bare && <b data-testid="torch-place">{live.place_words}</b>}
          <span>{trend}</span>
          <span className="text-ash">
            {live.clock.number} {live.clock.unit} on the job clock
          </span>
        </span>
      </div>
      {!bare && live.warming !== '' && (
        <p className="mt-2 max-w-[520px] text-[17px]" data-testid="torch-warming">
          {live.warming}
        </p>
      )}
      {!bare && live.by_now !== '' && (
        <p className="mt-2 max-w-[520px] text-[17px]" data-testid="torch-by-now">
          {live.by_now}
        </p>
      )}
      {live.pads.length > 0 && (
        <ul className="mt-2 text-[17px]" data-testid="torch-pads">
          {live.pads.map((pad) => (
            <li
              key={pad.channel}
              className={pad.over ? 'border-l-[3px] border-chalk pl-2 font-semibold' : ''}
            >
              <span className="inline-block first-letter:uppercase">{pad.name}</span>:{' '}
              <b>
                {inUnits(pad, units).number} {inUnits(pad, units).unit}
              </b>
              {pad.words !== '' && `, ${pad.words}`}
              {live.minutes - pad.minutes > OLD_MIN && (
                <span className="text-ash">, {minutes(live.minutes - pad.minutes)} ago</span>
              )}
            </li>
          ))}
        </ul>
      )}
    </div>
  )
}
