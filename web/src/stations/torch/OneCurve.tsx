import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { themeOf, useShop } from '../../job/ShopContext'
import { clock, minutes } from '../../quantity/show'
import { HeatChart } from '../../ui/HeatChart'
import { inOneCurve } from './one-curve'

export interface OneCurveProps {
  round: Schemas['RoundSeen']
  wordsOf: (what: Schemas['Lighting'] | undefined) => string
  now: number
}

/** All lightings of a round as one curve; nothing while there is only one of which something was read. */
export function OneCurve({ round, wordsOf, now }: OneCurveProps): ReactNode {
  const shop = useShop()
  const lightings = [
    ...round.cancelled,
    ...(round.lit == null ? [] : [{ lit: round.lit, log: round.log, readings: round.readings }]),
  ]
  const sessions = inOneCurve(lightings, wordsOf)
  const last = sessions.at(-1)
  if (sessions.length < 2 || last === undefined) return null
  const moved = sessions.map(({ from, points }) =>
    points.map((point) => ({ minutes: from + point.minutes, celsius: point.celsius })),
  )
  const hottest = Math.max(...moved.flat().map((point) => point.celsius))
  return (
    <section aria-label="All of this round" data-testid="one-curve">
      <h3 className="text-[20px]">All of this round</h3>
      <div className="max-w-[760px]">
        <HeatChart
          small
          name={`${sessions.length} lightings of this round, one after the other`}
          theme={themeOf(shop)}
          units={shop.units}
          until={Math.max(30, moved.at(-1)?.at(-1)?.minutes ?? 30) * 1.06}
          top={Math.ceil((hottest * 1.15) / 50) * 50}
          plan={[]}
          before={moved.slice(0, -1)}
          record={moved.at(-1) ?? []}
          levels={[]}
          tick={(at) => minutes(at)}
        />
      </div>
      <ol className="text-[17px]">
        {sessions.map((it) => (
          <li key={it.atMs}>
            <b>{it.words}</b>, lit {clock(it.atMs, shop, now)}
            <span className="text-ash">, from {minutes(it.from)} on the curve</span>
          </li>
        ))}
      </ol>
    </section>
  )
}
