import type { ReactNode } from 'react'
import { Link } from 'react-router'
import { useJob, useLive } from '../../job/JobContext'
import { themeOf, useShop } from '../../job/ShopContext'
import { useAlone } from '../../job/useAlone'
import { STATIONS } from '../../job/stations'
import { useStationWord } from '../../job/useStationWord'
import type { Schemas } from '../../api/client'
import { foreseen, hourMark, hoursPastTheHour, inUnits, type Wall } from '../../quantity/show'
import { HeatLine } from '../../ui/HeatLine'
import { layOut, type LineBox } from '../../ui/heat-line-layout'
import { alongCurve, hourWords, lineWords, TICK, type LineWord } from '../../ui/line-words'
import { useWidth } from '../../ui/useWidth'
import { widthOf, type Box, type Tick } from '../../ui/words'
import { AMOUNT_WORDS } from '../../ui/PunchMark'

export interface JobHeatLineProps {
  current: number
}

const HEIGHT = 192
const SHELF = 150
const NO_PLANS: readonly Schemas['PlanLine'][] = []

/** The job's heat line: navigation, state, plan and record in one drawing. */
export function JobHeatLine({ current }: JobHeatLineProps): ReactNode {
  const { view } = useJob()
  const { live } = useLive()
  const shop = useShop()
  const [frame, width] = useWidth<HTMLElement>(1240, 360)
  const { plan, job, standing } = view
  const word = useStationWord()
  const wordAt = (at: number) => word(STATIONS[at]?.station)
  // Whoever practises alone has no curve to go by: only what was read is drawn.
  const alone = useAlone()
  const plans = alone ? NO_PLANS : plan.lines
  const round = job.rounds.at(-1)
  const record = round?.readings ?? []
  const readings = live !== null && standing.hot != null ? [...record, live] : record
  const hottest = Math.max(
    20,
    ...plans.flatMap((line) => line.curve.map(([, celsius]) => celsius)),
    ...readings.map((reading) => reading.celsius),
  )
  // Where there is room, the name in hand stands clear of its neighbours.
  const step = width < 1100 ? 62 : 66
  const box: LineBox = { width, pad: 22, step, shelf: SHELF, top: 44, end: 84, right: 38 }
  const line = plans.find((candidate) => !candidate.cold) ?? plans[0] ?? null
  const layout = layOut(box, line, hottest, readings.at(-1)?.minutes ?? 0)
  const stopped = stoppedStation(view)
  const last = readings.at(-1)
  const shownNow = live === null ? '' : Object.values(inUnits(live, shop.units)).join(' ')
  const lit = round?.lit ?? null
  const covered = isCovered(view)
  const said: Record<string, string> = {}
  const wanted: LineWord[] = []
  const want = (key: string, text: string, box: Box) => {
    said[key] = text
    wanted.push({ key, box })
  }
  if (last !== undefined && standing.hot != null && shownNow !== '') {
    const w = widthOf(shownNow, 36, 'figure') + 4
    // On the way up and at the torch the marks to come lie right of the bead.
    const x = covered ? layout.x(last.minutes) + 14 : layout.x(last.minutes) - 14 - w
    want('now', shownNow, { x, y: layout.y(last.celsius) - (covered ? 34 : 16), w, h: 36 })
  }
  if (stopped === null && line !== null && !line.cold) {
    const unwrap = unwrapWords(plans, standing, shop)
    if (line.unwrap_at != null && unwrap !== '') {
      const w = widthOf(unwrap, 14.5)
      want('unwrap', unwrap, { x: layout.x(line.unwrap_at) - 8 - w, y: layout.y(65) - 42, w, h: 19 })
    }
    if (lit === null) {
      const w = widthOf(line.window_words, 15)
      const y = Math.max(62, layout.y(line.most_c) - 24)
      want('window', line.window_words, { x: (layout.stations[7] ?? 0) + 18, y, w, h: 20 })
    }
  }
  const there: Box[] = [
    {
      x: 0,
      y: 0,
      w: Math.min(70 + Math.max(widthOf(view.name, 26), widthOf(plan.body_words, 14.5) + 70), width * 0.55),
      h: 64,
    },
    { x: width - 460, y: 0, w: 460, h: 46 },
    // The line back of a further round, with its number.
    ...(job.rounds.length > 1 ? [{ x: 0, y: SHELF + 4, w: width, h: 20 }] : []),
  ]
  const onTheLine = (points: readonly (readonly [number, number])[]) =>
    alongCurve(points.map(([at, celsius]) => [layout.x(at), layout.y(celsius)] as const))
  if (line !== null && !line.cold) there.push(...onTheLine(line.curve))
  there.push(...onTheLine(readings.map(({ minutes: at, celsius }) => [at, celsius] as const)))
  const words = lineWords({ x: 0, y: 0, w: width, h: SHELF - 12 }, there, wanted)
  // The name of the last one ends where the line does.
  const halfOf = (at: number) => (at === current ? cursorWidth(wordAt(at)) / 2 : widthOf(wordAt(at), 15) / 2)
  const placeOf = (at: number) => Math.min(layout.labels[at] ?? 0, width - halfOf(at))
  // Its neighbours give way to the cursor.
  const labelX = (at: number) => {
    const apart = halfOf(current) + halfOf(at) + BESIDE_CURSOR
    if (at === current - 1) return Math.min(placeOf(at), placeOf(current) - apart)
    return at === current + 1 ? Math.max(placeOf(at), placeOf(current) + apart) : placeOf(at)
  }
  const marks = hourMarks(line?.unwrap_at ?? 0, layout, lit, shop)
  const hours = hourWords(
    marks.map((hour) => ({ at: hour.at, x: hour.x, word: hourWord(hour.at, lit, shop) })),
    SHELF + 18,
    layout.heatX + 40,
    layout.endX,
    there.slice(2),
  )
  return (
    <nav ref={frame} aria-label="Stations" className="relative h-[192px]">
      <Cursor x={labelX(current)} word={wordAt(current)} />
      <div className="absolute inset-0">
        <HeatLine
          box={box}
          layout={layout}
          height={HEIGHT}
          plans={plans}
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
          <HourTicks marks={marks} words={hours} />
        </HeatLine>
      </div>
      {[...words].map(([key, at]) => (
        <span
          key={key}
          className={
            key === 'now'
              ? 'figure absolute text-[36px] leading-9 whitespace-nowrap'
              : key === 'window'
                ? 'absolute font-semibold whitespace-nowrap'
                : 'label absolute whitespace-nowrap'
          }
          style={{ left: at.x, top: at.y }}
          data-testid={key === 'now' ? 'line-now' : undefined}
          data-line-word
        >
          {said[key]}
        </span>
      ))}
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
          x={labelX(at)}
          amount={AMOUNT_WORDS[state.amount]}
          beyond={stopped !== null && at > stopped}
        />
      ))}
    </nav>
  )
}

/** It lies under its packing. */
function isCovered({ standing, job }: ReturnType<typeof useJob>['view']): boolean {
  const log = job.rounds.at(-1)?.log ?? []
  return standing.hot?.covered ?? log.some((it) => it.struck == null && it.entry.kind === 'covered')
}

function stoppedStation(view: ReturnType<typeof useJob>['view']): number | null {
  const { stopped_at } = view.standing
  if (stopped_at == null) return null
  return STATIONS.findIndex((entry) => entry.station === stopped_at)
}

const BESIDE_CURSOR = 5

const cursorWidth = (word: string): number => Math.max(44, Math.round(widthOf(word, 17)) + 8)

/** Around the word of the station in hand, clear of its neighbours' words. */
function Cursor({ x, word }: { x: number; word: string }): ReactNode {
  const width = cursorWidth(word)
  const middle = width / 2
  return (
    <svg
      aria-hidden
      className="absolute top-0 overflow-visible"
      style={{ left: x - middle }}
      width={width}
      height="192"
    >
      <rect x="0" y="90" width={width} height="102" fill="var(--raise)" />
      <path d={`M0 90V191M${width} 90V191`} stroke="var(--chalk)" strokeWidth="1.5" />
      <path
        d={`M0 191H${middle - 8}L${middle} 200 ${middle + 8} 191H${width}`}
        fill="var(--raise)"
        stroke="var(--chalk)"
        strokeWidth="1.5"
      />
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
  const word = useStationWord()
  const entry = STATIONS[at]
  if (entry === undefined) return null
  const here = at === current
  return (
    <Link
      to={`/jobs/${view.id}/${entry.path}`}
      aria-label={`${word(entry.station)}, ${amount}`}
      aria-current={here ? 'step' : undefined}
      className={`absolute flex min-w-11 -translate-x-1/2 items-end justify-center pb-0.5 ${here ? 'text-[17px] font-bold' : ''} ${beyond ? 'text-dim' : ''}`}
      style={{ left: x, top: SHELF - 20, height: 60, maxWidth: 62 }}
    >
      <span className="whitespace-nowrap">{word(entry.station)}</span>
    </Link>
  )
}

interface HourMark {
  /** Hours from lighting up. */
  at: number
  x: number
}

/** Whole hours, of the shop's clock once it is lit. */
function hourMarks(
  until: number,
  layout: ReturnType<typeof layOut>,
  lit: { at_ms: number } | null,
  wall: Wall,
): HourMark[] {
  const { x, endX, cut } = layout
  const perHour = x(60) - x(0)
  const offset = lit === null ? 0 : 1 - hoursPastTheHour(lit.at_ms, wall)
  const hours = Array.from({ length: Math.floor(until / 60) }, (_, at) => at + (lit === null ? 1 : offset))
  const hidden = (hour: number) => cut !== null && hour * 60 >= cut.from && hour * 60 <= cut.to
  return hours
    .map((at) => ({ at, x: x(at * 60) }))
    .filter((hour) => hour.x < endX - 4 && perHour > 5 && !hidden(hour.at))
}

function hourWord(hour: number, lit: { at_ms: number } | null, wall: Wall): string {
  if (lit === null) return `${hour} h`
  const at = Math.round((lit.at_ms + hour * 3_600_000) / 60_000) * 60_000
  return hourMark(at, wall)
}

interface HourTicksProps {
  marks: readonly HourMark[]
  words: readonly Tick[]
}

/** Hour marks below the shelf, as clock times once it is lit. */
function HourTicks({ marks, words }: HourTicksProps): ReactNode {
  return (
    <g>
      {marks.map((hour) => (
        <path key={hour.at} d={`M${hour.x} ${SHELF}v5`} stroke="var(--dim)" />
      ))}
      {words.map((hour) => (
        <text key={hour.at} x={hour.x} y={SHELF + 18} textAnchor="middle" fill="var(--dim)" fontSize={TICK}>
          {hour.word}
        </text>
      ))}
    </g>
  )
}

/** When it may be unwrapped, or the ways still possible. */
function unwrapWords(
  lines: readonly Schemas['PlanLine'][],
  standing: Schemas['JobStatus'],
  wall: Wall,
): string {
  if (lines.length > 1) return lines.map((l) => l.name).join(' or ')
  const at = standing.hot?.unwrap_at_ms
  if (at != null) return `may be unwrapped ${foreseen(at, wall, standing.job_now_ms ?? 0)}`
  return lines[0]?.span_words ?? ''
}
