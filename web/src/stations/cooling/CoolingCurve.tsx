import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { useJob, useLive } from '../../job/JobContext'
import { themeOf, useShop } from '../../job/ShopContext'
import { useAlone } from '../../job/useAlone'
import { clock, hoursPastTheHour, minutes } from '../../quantity/show'
import { HeatChart } from '../../ui/HeatChart'

/** In minutes: so that a whole hour is not shown as the minute before it. */
const SECOND = 1 / 60

const pair = (of: readonly number[] | null | undefined): readonly [number, number] | null =>
  of?.[0] === undefined || of[1] === undefined ? null : [of[0], of[1]]

/** Size of the sign on the chart, with its overshot corners. */
const SIGN = { w: 480, h: 150 }

export interface CoolingCurveProps {
  cooling: Schemas['CoolingPlan']
  /** That of the last lighting. */
  round: Schemas['RoundSeen'] | undefined
  /** Minutes after it was lit; nothing while it is not covered. */
  covered: number | null
  /** A moment that is only foreseen, so many minutes after it was covered. */
  may: (at: number) => string
}

/** The way down as it is planned, as it goes, and as it was read. */
export function CoolingCurve({ cooling, round, covered, may }: CoolingCurveProps): ReactNode {
  const { view } = useJob()
  const { live } = useLive()
  const alone = useAlone()
  const shop = useShop()
  const lit = round?.lit ?? null
  const hot = view.standing.hot ?? null
  const from = covered ?? 0
  const all = round?.readings ?? []
  const record = [...all, ...(live === null ? [] : [live])]
    .filter((reading) => covered !== null && reading.minutes >= covered)
    .map((reading) => ({ ...reading, minutes: reading.minutes - from }))
  const byHand = (round?.log ?? []).flatMap((entry) =>
    entry.celsius != null && entry.struck == null && covered !== null && entry.minutes >= covered
      ? [{ minutes: entry.minutes - from, celsius: entry.celsius }]
      : [],
  )
  const plan = cooling.curve.map(([hours, celsius]) => [hours * 60, celsius] as const)
  const until = Math.max(60, plan.at(-1)?.[0] ?? 60) * 1.06
  const when = (at: number): string =>
    lit === null || covered === null
      ? minutes(at)
      : clock(lit.at_ms + (covered + at) * 60_000, shop, view.standing.job_now_ms ?? lit.at_ms)
  // Once covered the ticks stand at whole hours of the clock.
  const toWholeHour =
    lit === null || covered === null
      ? 0
      : 60 - hoursPastTheHour(lit.at_ms + covered * 60_000, shop) * 60 + SECOND
  const going = cooling.going ?? null
  const inMinutes = (curve: readonly (readonly [number, number])[]) =>
    curve.map(([hours, celsius]) => [hours * 60, celsius] as const)
  const post = (
    hours: number | null | undefined,
    celsius: number,
    words: string,
    between: readonly [number, number] | null = null,
  ) =>
    hours == null
      ? []
      : [
          {
            minutes: hours * 60,
            celsius,
            figure: may(hours * 60),
            words,
            between: between === null ? null : ([between[0] * 60, between[1] * 60] as const),
          },
        ]
  return (
    <HeatChart
      name="Cooling: planned curve and readings"
      theme={themeOf(shop)}
      units={shop.units}
      until={until}
      top={Math.ceil((cooling.start_c * 1.08) / 50) * 50}
      plan={alone ? [] : plan}
      {...(going === null || alone
        ? {}
        : {
            beside: inMinutes(going.planned),
            band: { early: inMinutes(going.early), late: inMinutes(going.late) },
          })}
      record={record}
      byHand={byHand}
      levels={[]}
      posts={
        alone
          ? []
          : [
              ...post(cooling.unwrap_hours, 65, cooling.unwrap_words, pair(going?.unwrap_between)),
              ...post(cooling.touch_hours, 45, cooling.touch_words, pair(going?.touch_between)),
            ]
      }
      now={record.length > 0 && hot !== null ? record.at(-1)?.minutes : undefined}
      tick={when}
      tickFrom={toWholeHour}
      under={hot !== null && covered !== null ? SIGN : undefined}
    />
  )
}
