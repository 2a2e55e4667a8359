import type { ReactNode } from 'react'
import { Link } from 'react-router'
import { useJob } from '../../job/JobContext'
import { themeOf, useShop } from '../../job/ShopContext'
import { STATIONS } from '../../job/stations'
import type { Schemas } from '../../api/client'
import { clock, inUnits } from '../../quantity/show'
import { HeatLine } from '../../ui/HeatLine'
import { layOut, type LineBox } from '../../ui/heat-line-layout'
import { useWidth } from '../../ui/useWidth'
import { AMOUNT_WORDS } from '../../ui/PunchMark'

export interface JobHeatLineProps {
  current: number
}

const HEIGHT = 192
const SHELF = 150

/** The job's heat line: navigation, state, plan and record in one drawing. */
export function JobHeatLine({ current }: JobHeatLineProps): ReactNode {
  const { view, live } = useJob()
  const shop = useShop()
  const [frame, width] = useWidth<HTMLElement>(1240, 360)
  const { plan, job, standing } = view
  const round = job.rounds.at(-1)
  const record = round?.readings ?? []
  const readings = live !== null && standing.hot != null ? [...record, live] : record
  const hottest = Math.max(
    20,
    ...plan.lines.flatMap((line) => line.curve.map(([, celsius]) => celsius)),
    ...readings.map((reading) => reading.celsius),
  )
  const box: LineBox = { width, pad: 22, step: 62, shelf: SHELF, top: 44, end: 84, right: 38 }
  const line = plan.lines.find((candidate) => !candidate.cold) ?? plan.lines[0] ?? null
  const layout = layOut(box, line, hottest, readings.at(-1)?.minutes ?? 0)
  const stopped = stoppedStation(view)
  const last = readings.at(-1)
  const shownNow = live === null ? '' : Object.values(inUnits(live, shop.units)).join(' ')
  const lit = round?.lit ?? null
  const covered = round?.log.some((entry) => entry.struck == null && entry.entry.kind === 'covered') ?? false
  return (
    <nav ref={frame} aria-label="Stations" className="relative h-[192px]">
      <Cursor x={layout.labels[current] ?? 0} />
      <div className="absolute inset-0">
        <HeatLine
          box={box}
          layout={layout}
          height={HEIGHT}
          plans={plan.lines}
          stations={plan.stations}
          current={current}
          record={readings}
          earlier={job.rounds.slice(0, -1).map((before) => before.readings)}
          theme={themeOf(shop)}
          strokeWidth={6}
          markRadius={8.5}
          hot={standing.hot != null}
          stoppedAt={stopped}
          round={job.rounds.length}
        >
          <HourTicks
            until={line?.unwrap_at ?? 0}
            x={layout.x}
            endX={layout.endX}
            cut={layout.cut}
            lit={lit}
            zone={shop.time_zone}
          />
        </HeatLine>
      </div>
      {stopped === null && line !== null && !line.cold && (
        <LineWords line={line} layout={layout} lines={plan.lines} lit={lit !== null} />
      )}
      {last !== undefined && standing.hot != null && (
        <span
          className="figure absolute text-[36px] leading-9 whitespace-nowrap"
          style={{
            top: Math.max(covered ? 0 : 62, layout.y(last.celsius) - (covered ? 34 : 16)),
            // On the way up and at the torch the marks to come lie right of the bead.
            ...(covered
              ? { left: layout.x(last.minutes) + 14 }
              : { right: width - layout.x(last.minutes) + 14 }),
          }}
          data-testid="line-now"
        >
          {shownNow}
        </span>
      )}
      {stopped !== null && (
        <p
          className="absolute text-ash"
          style={{ left: (layout.stations[stopped] ?? 0) + 48, top: SHELF - 10 }}
        >
          {plan.locks[0]?.sentence ?? plan.methods.headline}
        </p>
      )}
      {plan.stations.map((state, at) => (
        <StationLink
          key={state.station}
          at={at}
          current={current}
          x={layout.labels[at] ?? 0}
          amount={AMOUNT_WORDS[state.amount]}
          beyond={stopped !== null && at > stopped}
        />
      ))}
    </nav>
  )
}

function stoppedStation(view: ReturnType<typeof useJob>['view']): number | null {
  const { stopped_at } = view.standing
  if (stopped_at == null) return null
  return STATIONS.findIndex((entry) => entry.station === stopped_at)
}

function Cursor({ x }: { x: number }): ReactNode {
  return (
    <svg
      aria-hidden
      className="absolute top-0 overflow-visible"
      style={{ left: x - 36 }}
      width="72"
      height="192"
    >
      <rect x="0" y="90" width="72" height="102" fill="var(--raise)" />
      <path d="M0 90V191M72 90V191" stroke="var(--chalk)" strokeWidth="1.5" />
      <path d="M0 191H28L36 200 44 191H72" fill="var(--raise)" stroke="var(--chalk)" strokeWidth="1.5" />
    </svg>
  )
}

interface StationLinkProps {
  at: number
  current: number
  x: number
  amount: string
  beyond: boolean
}

function StationLink({ at, current, x, amount, beyond }: StationLinkProps): ReactNode {
  const { view } = useJob()
  const entry = STATIONS[at]
  if (entry === undefined) return null
  const here = at === current
  return (
    <Link
      to={`/jobs/${view.id}/${entry.path}`}
      aria-label={`${entry.word}, ${amount}`}
      aria-current={here ? 'step' : undefined}
      className={`absolute flex min-w-11 -translate-x-1/2 items-end justify-center pb-0.5 ${here ? 'text-[17px] font-bold' : ''} ${beyond ? 'text-dim' : ''}`}
      style={{ left: x, top: SHELF - 20, height: 60, maxWidth: 62 }}
    >
      <span className="whitespace-nowrap">{entry.word}</span>
    </Link>
  )
}

interface HourTicksProps {
  until: number
  x: (minutes: number) => number
  endX: number
  cut: { from: number; to: number } | null
  lit: { at_ms: number } | null
  zone: string
}

/** Hour marks below the shelf, as clock times once it is lit. */
function HourTicks({ until, x, endX, cut, lit, zone }: HourTicksProps): ReactNode {
  const perHour = x(60) - x(0)
  const every = [1, 2, 3, 6, 12, 24].find((hours) => hours * perHour >= 64) ?? 48
  // Once lit the ticks stand at whole hours of the clock.
  const offset = lit === null ? 0 : 1 - ((lit.at_ms / 3_600_000) % 1)
  const hours = Array.from({ length: Math.floor(until / 60) }, (_, at) => at + (lit === null ? 1 : offset))
  const hidden = (hour: number) => cut !== null && hour * 60 >= cut.from && hour * 60 <= cut.to
  const marks = hours.filter((hour) => x(hour * 60) < endX - 4 && perHour > 5 && !hidden(hour))
  const named = (at: number) => at > x(0) + 190 && (cut === null || Math.abs(at - x(cut.from)) > 40)
  return (
    <g>
      {marks.map((hour, place) => {
        const at = x(hour * 60)
        return (
          <g key={hour}>
            <path d={`M${at} ${SHELF}v5`} stroke="var(--dim)" />
            {(place + 1) % every === 0 && named(at) && (
              <text x={at} y={SHELF + 18} textAnchor="middle" fill="var(--dim)" fontSize="12">
                {lit === null
                  ? `${hour} h`
                  : clock(lit.at_ms + hour * 3_600_000, zone, lit.at_ms + hour * 3_600_000)}
              </text>
            )}
          </g>
        )
      })}
    </g>
  )
}

interface LineWordsProps {
  line: Schemas['PlanLine']
  lines: readonly Schemas['PlanLine'][]
  layout: ReturnType<typeof layOut>
  lit: boolean
}

/** The window's two numbers and what the long way down is. */
function LineWords({ line, lines, layout, lit }: LineWordsProps): ReactNode {
  const { time_zone } = useShop()
  const { standing } = useJob().view
  const unwrap = line.unwrap_at ?? null
  const right = layout.x(unwrap ?? line.beads_to)
  return (
    <>
      {!lit && (
        <span
          className="absolute font-semibold whitespace-nowrap"
          style={{ left: (layout.stations[7] ?? 0) + 18, top: Math.max(62, layout.y(line.most_c) - 24) }}
        >
          {line.window_words}
        </span>
      )}
      {unwrap !== null && (
        <span
          className="label absolute text-right whitespace-nowrap"
          style={{ right: `calc(100% - ${right - 8}px)`, top: layout.y(65) - 42 }}
        >
          {lines.length > 1
            ? lines.map((l) => l.name).join(' or ')
            : standing.hot?.unwrap_at_ms != null
              ? `unwrap ${clock(standing.hot.unwrap_at_ms, time_zone, standing.job_now_ms ?? 0)}`
              : `unwrap after ${line.in_all}`}
        </span>
      )}
    </>
  )
}
