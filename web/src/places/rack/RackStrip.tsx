import { memo, type ReactNode } from 'react'
import { Link, useNavigate } from 'react-router'
import type { Schemas } from '../../api/client'
import { themeOf, useShop } from '../../job/ShopContext'
import { tableOf } from '../../api/fields'
import { pictureUrl } from '../../api/picture-url'
import { outbox } from '../../api/queue/outbox'
import { useTables } from '../../job/TablesContext'
import { Button } from '../../ui/Button'
import { pathOf, STATIONS } from '../../job/stations'
import { useStationWord } from '../../job/useStationWord'
import { foreseen } from '../../quantity/show'
import { HeatLine } from '../../ui/HeatLine'
import { layOut, type LineBox } from '../../ui/heat-line-layout'
import { Plate } from '../../ui/Plate'
import { lineWords, type LineWord } from '../../ui/line-words'
import { widthOf } from '../../ui/words'

export interface RackStripProps {
  line: Schemas['RackLine']
  /** The one on top carries the plate. */
  first: boolean
  now: number
  /** The longest line of the rack in minutes: all strips share one scale. */
  longestOfAll: number
  /** In px: all strips are as wide as the rack. */
  width: number
}

/** Strips under this width, in px, stand on a page for a phone. */
const NARROW = 868
const BECAME = 'hand_over.became'

/** How a repair holds, answered where it lies. */
function Became({ id, name, verb }: { id: string; name: string; verb: string }): ReactNode {
  const navigate = useNavigate()
  const choices = tableOf(useTables(), BECAME)?.choices ?? []
  return (
    <div
      className="relative z-20 shrink-0 max-bench:w-full max-bench:shrink"
      role="group"
      aria-label={`${name}: ${verb}`}
    >
      <p className="words text-right text-[26px] leading-[30px] max-bench:text-left">{verb}</p>
      <div className="flex flex-wrap gap-2">
        {choices.map((choice) => (
          <Button
            key={choice.id}
            onPress={() => {
              // What does not hold has more to be said of it: where it went, after how long.
              if (choice.id === 'holds' || choice.id === 'unknown')
                void outbox.say(id, { kind: 'follow_up', became: choice.id })
              else void navigate(`/jobs/${id}/hand-over?asked=${choice.id}`)
            }}
          >
            {choice.label}
          </Button>
        ))}
      </div>
    </div>
  )
}

const hotText = (shown: Schemas['Shown'] | null | undefined): string =>
  shown == null ? '' : `${shown.number} ${shown.unit}`

/** Hot or lit jobs get the room their line needs; cold ones lie closer together. */
export const RackStrip = memo(function RackStrip(props: RackStripProps): ReactNode {
  const shop = useShop()
  const navigate = useNavigate()
  const { line, first, now, longestOfAll, width } = props
  const { standing } = line
  const here = useStationWord()(standing.station)
  const { next } = standing
  // What is or was hot in this round gets the room its line needs; the rest lies closer together.
  const tall = first || standing.hot != null || standing.rank === 2
  const phone = width < 700
  // On a narrow page second words are larger.
  const letters = width < NARROW ? 16 : 14
  // On a phone the line has its own row below the words.
  const height = phone ? (tall ? 96 : 56) : tall ? 116 : 62
  const perMinute = (width - (phone ? 180 : 510)) / Math.max(longestOfAll, 1)
  const box: LineBox = {
    width,
    pad: 20,
    step: phone ? 17 : 62,
    shelf: height - (tall ? 26 : 24),
    top: tall && !phone ? 20 : 8,
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
  const at = next.at_ms == null ? '' : ` ${foreseen(next.at_ms, shop, standing.job_now_ms ?? now)}`
  const go = `/jobs/${line.id}/${pathOf(standing.station)}`
  const verb = standing.stopped ?? `${next.verb}${at}`
  const hotWords = hot === null ? '' : hotText(shop.units === 'imperial' ? hot.imperial : hot.metric)
  const inAll = planWords(line.lines)
  const wanted: LineWord[] = []
  if (hot !== null && !phone) {
    const x = last === undefined ? 0 : layout.x(last.minutes)
    const w = widthOf(hotWords, 34, 'figure') + 80
    wanted.push({ key: 'hot', box: { x: x + 14, y: layout.y(last?.celsius ?? 20) - 34, w, h: 36 } })
  }
  if (hot === null && plan !== null && !plan.cold && stopped === null && !phone && longest === 0) {
    const w = widthOf(inAll, letters + 0.5)
    const x = layout.x(plan.unwrap_at ?? plan.beads_to) + 4 - w
    wanted.push({ key: 'plan', box: { x, y: box.shelf + 6, w, h: 18 } })
  }
  const hereW = widthOf(here, letters) + 24
  const hereX = Math.max(0, Math.min((layout.stations[current] ?? 0) - 6, width - hereW))
  const head = tall ? -16 : -20
  const verbW = first ? widthOf(verb, 17) + 60 : widthOf(verb, tall ? 26 : 20)
  const words = lineWords(
    { x: 0, y: 0, w: width, h: height },
    [
      { x: hereX, y: box.shelf + 6, w: hereW, h: 20 },
      { x: 0, y: head, w: 100 + Math.max(widthOf(line.name, 22), 220), h: tall ? 56 : 26 },
      { x: width - verbW, y: head, w: verbW, h: tall ? 46 : 30 },
    ],
    wanted,
  )
  return (
    <section
      aria-label={line.name}
      className={`relative border-b border-rule ${tall ? 'pt-1.5' : 'pt-1'}`}
      data-testid="rack-line"
    >
      <Link to={go} aria-label={`${line.name}: ${verb}`} className="absolute inset-0 z-10" />
      <div
        className={`flex justify-between gap-x-4 max-bench:flex-wrap ${tall ? 'items-start' : 'items-baseline'}`}
      >
        <StripName line={line} tall={tall} hotWords={phone ? hotWords : ''} />
        {next.key === BECAME ? (
          <Became id={line.id} name={line.name} verb={next.verb} />
        ) : first ? (
          <span className="relative z-20 shrink-0">
            <Plate inPlace testId="next" onPress={() => void navigate(go)}>
              {verb}
            </Plate>
          </span>
        ) : (
          <StripVerb verb={standing.stopped ?? next.verb} at={at} tall={tall} />
        )}
      </div>
      <div className={`relative ${phone ? '' : tall ? '-mt-[46px]' : '-mt-[30px]'}`} style={{ height }}>
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
          round={line.round}
          taken={[hereX, hereX + hereW]}
        />
        {words.has('hot') && (
          <span
            className="figure absolute text-[34px] leading-9 whitespace-nowrap"
            style={{ left: words.get('hot')?.x, top: words.get('hot')?.y }}
            data-line-word
          >
            {hotWords} <span className="words">HOT</span>
          </span>
        )}
        <Here x={hereX} top={box.shelf + 8}>
          {here}
        </Here>
        {words.has('plan') && (
          <span
            className="label absolute whitespace-nowrap"
            style={{ left: words.get('plan')?.x, top: words.get('plan')?.y }}
            data-line-word
          >
            {inAll}
          </span>
        )}
      </div>
    </section>
  )
})

interface StripNameProps {
  line: Schemas['RackLine']
  tall: boolean
  /** "343 °C" beside the name; empty where it stands on the line, or nothing is hot. */
  hotWords: string
}

/** Which job it is: its picture, its name, its iron, what is odd about it. */
function StripName({ line, tall, hotWords }: StripNameProps): ReactNode {
  return (
    <div className={`flex min-w-0 gap-3 ${tall ? 'items-start' : 'items-center gap-2'}`}>
      {line.face != null && (
        <img
          src={pictureUrl(line.id, line.face, true)}
          alt=""
          className={`shrink-0 border border-scribe object-cover ${tall ? 'h-[62px] w-[82px]' : 'h-[30px] w-[38px] max-bench:hidden'}`}
        />
      )}
      <div className={`min-w-0 ${tall ? '' : 'flex items-baseline gap-2 bench:max-w-[306px]'}`}>
        <h2
          className={`truncate ${tall ? 'text-[30px] leading-[36px]' : 'shrink-0 text-[20px] leading-[28px] max-bench:shrink'}`}
        >
          {line.name}
        </h2>
        <p className={`label truncate ${tall ? '' : 'max-bench:hidden'}`}>
          {tall && line.mass !== '' ? `${line.iron}, ${line.mass}` : line.iron}
        </p>
        {line.put_away && <p className="label">put away</p>}
        {line.damaged !== '' && (
          <p className="font-semibold" data-testid="damaged">
            {line.damaged}
          </p>
        )}
        {hotWords !== '' && (
          <p className="figure text-[30px] leading-9">
            {hotWords} <span className="words">HOT</span>
          </p>
        )}
      </div>
    </div>
  )
}

/** What it waits for, where it is not on top. */
function StripVerb({ verb, at, tall }: { verb: string; at: string; tall: boolean }): ReactNode {
  return (
    <p
      className={`words shrink-0 text-right first-letter:uppercase ${tall ? 'text-[30px] leading-[36px]' : 'text-[22px] leading-[28px]'}`}
    >
      {verb}
      {at !== '' && <span className="figure font-sans text-[0.86em]">{at}</span>}
    </p>
  )
}

/** "torch braze, may be unwrapped after 5 h 15", or the ways still possible. */
function planWords(lines: readonly Schemas['PlanLine'][]): string {
  const [only] = lines
  if (only === undefined) return ''
  if (lines.length > 1) return lines.map((l) => l.name.toLowerCase()).join(' or ')
  return [only.name.toLowerCase(), only.span_words].filter((words) => words !== '').join(', ')
}

interface HereProps {
  x: number
  top: number
  children: ReactNode
}

/** The station in hand, named below its mark. */
function Here({ x, top, children }: HereProps): ReactNode {
  return (
    <span
      className="absolute flex items-center gap-1.5 bg-iron pr-1 small leading-4 font-bold whitespace-nowrap"
      style={{ left: x, top }}
      data-line-word
    >
      <svg width="12" height="8" aria-hidden>
        <path d="M1 7l5-5 5 5" fill="none" stroke="currentColor" strokeWidth="1.6" />
      </svg>
      {children}
    </span>
  )
}
