import { useEffect, useRef, useState, type ReactNode } from 'react'
import { Link, useNavigate } from 'react-router'
import type { Schemas } from '../../api/client'
import { themeOf, useShop } from '../../job/ShopContext'
import { pathOf, STATIONS, wordOf } from '../../job/stations'
import { clock, minutes, temperature } from '../../quantity/show'
import { HeatLine } from '../../ui/HeatLine'
import { layOut, type LineBox } from '../../ui/heat-line-layout'
import { Plate } from '../../ui/Plate'

export interface RackStripProps {
  line: Schemas['RackLine']
  /** The one on top carries the plate. */
  first: boolean
  now: number
  /** The longest line of the rack in minutes: all strips share one scale. */
  longestOfAll: number
}

/** Hot or lit jobs get the room their line needs; cold ones lie closer together. */
export function RackStrip({ line, first, now, longestOfAll }: RackStripProps): ReactNode {
  const shop = useShop()
  const navigate = useNavigate()
  const frame = useRef<HTMLDivElement>(null)
  const [width, setWidth] = useState(1240)
  useEffect(() => {
    if (frame.current === null) return
    const observer = new ResizeObserver(([entry]) =>
      setWidth(Math.max(340, entry?.contentRect.width ?? 1240)),
    )
    observer.observe(frame.current)
    return () => observer.disconnect()
  }, [])
  const { standing } = line
  const { next } = standing
  const tall = line.lit_at_ms != null || first
  const height = tall ? 116 : 84
  const phone = width < 700
  const perMinute = (width - (phone ? 180 : 510)) / Math.max(longestOfAll, 1)
  const box: LineBox = {
    width,
    pad: 20,
    step: phone ? 17 : 62,
    shelf: height - 24,
    top: tall ? 20 : 22,
    end: phone ? 20 : 62,
    right: phone ? 8 : 20,
    perMinute,
  }
  const plan = line.lines.find((candidate) => !candidate.cold) ?? line.lines[0] ?? null
  const last = line.record.at(-1)
  const hot = standing.hot ?? null
  const hottest = Math.max(
    20,
    ...line.lines.flatMap((l) => l.curve.map(([, celsius]) => celsius)),
    ...[line.record, ...line.earlier].flat().map((reading) => reading.celsius),
  )
  const longest = Math.max(last?.minutes ?? 0, ...line.earlier.map((round) => round.at(-1)?.minutes ?? 0))
  const layout = layOut(box, plan, hottest, longest)
  const stopped =
    standing.stopped == null ? null : STATIONS.findIndex((entry) => entry.station === standing.station)
  const current = STATIONS.findIndex((entry) => entry.station === standing.station)
  const at = next.at_ms == null ? '' : ` at ${clock(next.at_ms, shop.time_zone, standing.job_now_ms ?? now)}`
  const go = `/jobs/${line.id}/${pathOf(standing.station)}`
  const verb = standing.stopped ?? `${next.verb}${at}`
  return (
    <section aria-label={line.name} className="relative border-b border-rule pt-1.5" data-testid="rack-line">
      <Link to={go} aria-label={`${line.name}: ${verb}`} className="absolute inset-0 z-10" />
      <div className="flex items-start justify-between gap-4">
        <div className="relative z-0 min-w-0">
          <h2 className={`truncate ${tall ? 'text-[30px] leading-8' : 'text-[24px] leading-7'}`}>
            {line.name}
          </h2>
          <p className="label truncate">{line.under}</p>
        </div>
        {first ? (
          <span className="relative z-20 shrink-0 pt-1">
            <Plate testId="next" onPress={() => void navigate(go)}>
              {verb}
            </Plate>
          </span>
        ) : (
          <p
            className={`words shrink-0 text-right first-letter:uppercase ${tall ? 'text-[30px] leading-8' : 'text-[24px] leading-7'}`}
          >
            {standing.stopped ?? next.verb}
            {at !== '' && <span className="figure font-sans text-[0.86em]">{at}</span>}
          </p>
        )}
      </div>
      <div ref={frame} className="relative -mt-[40px]" style={{ height }}>
        <HeatLine
          box={box}
          layout={layout}
          height={height}
          plans={line.lines}
          stations={line.stations}
          current={current}
          record={line.record}
          earlier={line.earlier}
          theme={themeOf(shop)}
          strokeWidth={5}
          markRadius={6}
          hot={hot !== null}
          stoppedAt={stopped}
        />
        {hot?.celsius != null && last !== undefined && (
          <span
            className="figure absolute text-[34px] leading-9 whitespace-nowrap"
            style={{ left: layout.x(last.minutes) + 14, top: Math.max(0, layout.y(last.celsius) - 32) }}
          >
            {temperature(hot.celsius, shop.units).join(' ')} <span className="words">HOT</span>
          </span>
        )}
        <span
          className="absolute text-[14px] font-bold whitespace-nowrap"
          style={{ left: Math.min(layout.stations[current] ?? 0, width - 84) - 6, top: box.shelf + 7 }}
        >
          ^ {wordOf(standing.station)}
          {line.round > 1 && <span className="ml-4 font-normal text-ash">round {line.round}</span>}
        </span>
        {hot === null && plan !== null && !plan.cold && stopped === null && !phone && (
          <span
            className="label absolute whitespace-nowrap"
            style={{ left: layout.x(plan.unwrap_at ?? plan.beads_to) + 10, top: box.shelf - 24 }}
          >
            {line.lines.length > 1
              ? line.lines.map((l) => l.name.toLowerCase()).join(' or ')
              : plan.unwrap_at == null
                ? ''
                : `${minutes(plan.unwrap_at)} in all`}
          </span>
        )}
      </div>
    </section>
  )
}
