import { useState, type ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { themeOf, useShop } from '../../job/ShopContext'
import { heatColour } from '../../quantity/heat-colour'
import { ahead } from '../../quantity/show'
import { useWidth } from '../../ui/useWidth'
import { clockScale, oddsAt, type ClockScale } from './scales'

type Contender = Schemas['Contender']

export interface WaysProps {
  ways: readonly Contender[]
  chosen: string | null
  /** It was chosen by the welder, not by the plan. */
  own: boolean
  open: string | null
  onOpen: (method: string) => void
  wanted: number | null
}

/** What of a way is compared, from left to right. */
const COLUMNS = 'grid items-center gap-x-4 max-bench:grid-cols-[1fr_84px] max-bench:gap-x-3'
const PRICED = 'min-bench:grid-cols-[minmax(200px,1.5fr)_minmax(110px,1fr)_minmax(150px,1.4fr)_84px_84px]'
const UNPRICED = 'min-bench:grid-cols-[minmax(200px,1.5fr)_minmax(110px,1fr)_minmax(150px,1.4fr)_84px]'

/** So many lines stand there at first: the rest is a press away. */
const FIRST = 5

/** One line a way, all on the same scales: how often it holds, when it is ready, how hot, what it costs. */
export function Ways({ ways, chosen, own, open, onOpen, wanted }: WaysProps): ReactNode {
  const [all, setAll] = useState(false)
  const shown = ways.filter((way, at) => all || at < FIRST || way.way.method === chosen)
  const timed = ways.some((way) => way.ready != null)
  const priced = ways.some((way) => way.price_words != null)
  const columns = `${COLUMNS} ${priced ? PRICED : UNPRICED}`
  const scale = clockScale(
    ways.flatMap((way) => (way.ready == null ? [] : [way.ready.after_min])),
    wanted,
  )
  return (
    <div role="group" aria-label="Ways" className="border-b border-scribe">
      <div className={`${columns} border-b border-scribe pb-1`}>
        <span className="label max-bench:sr-only">Way</span>
        <span>
          <span className="label">Holds a year, of 100</span>
          <OddsHead />
        </span>
        <span className="max-bench:hidden">
          <span className="label">Ready</span>
          {timed ? <ClockHead scale={scale} wanted={wanted} /> : <Unmapped />}
        </span>
        <span className="label">Heat</span>
        {priced && <span className="label text-right max-bench:hidden">Price</span>}
      </div>
      {shown.map((way) => (
        <Way
          key={way.way.method}
          way={way}
          scale={scale}
          wanted={wanted}
          columns={columns}
          priced={priced}
          timed={timed}
          chosen={chosen === way.way.method}
          own={own}
          open={open === way.way.method}
          onOpen={() => onOpen(way.way.method)}
        />
      ))}
      {ways.length > shown.length && (
        <button
          type="button"
          className="min-h-11 w-full pl-2 text-left text-ash"
          onClick={() => setAll(true)}
        >
          {ways.length - shown.length} more ways, further back
        </button>
      )}
    </div>
  )
}

interface WayProps {
  way: Contender
  scale: ClockScale
  wanted: number | null
  columns: string
  priced: boolean
  timed: boolean
  chosen: boolean
  own: boolean
  open: boolean
  onOpen: () => void
}

function Way({ way, scale, wanted, columns, priced, timed, chosen, own, open, onOpen }: WayProps): ReactNode {
  const theme = themeOf(useShop())
  const said = [`holds ${way.odds_of_100} of 100`, way.ready == null ? '' : `ready ${way.ready.words}`]
  return (
    <button
      type="button"
      onClick={onOpen}
      aria-expanded={open}
      className={`${columns} min-h-12 w-full border-b border-rule text-left last:border-b-0 max-bench:py-1 ${
        open ? 'bg-raise' : chosen ? 'bg-slab' : ''
      }`}
    >
      <span className="words flex flex-wrap items-center gap-x-2 pl-2 text-[20px] leading-[22px] max-bench:col-span-2">
        <span>{way.label}</span>
        {chosen && <span className="small font-sans font-semibold">{own ? 'taken' : 'first choice'}</span>}
        {way.ready != null && (
          <span className="small ml-auto font-sans font-normal text-ash min-bench:hidden">
            {way.ready.words}
            {way.ready.late ? ', too late' : ''}
          </span>
        )}
      </span>
      <span className="sr-only">{said.filter((words) => words !== '').join(', ')}</span>
      <OddsBar odds={way.odds} of100={way.odds_of_100} />
      <span className="max-bench:hidden">
        {timed && <ReadyBar ready={way.ready ?? null} scale={scale} wanted={wanted} />}
      </span>
      <span className="flex items-center gap-2 whitespace-nowrap">
        {way.target_c != null && (
          <span
            aria-hidden
            className="h-8 w-[5px] shrink-0"
            style={{ background: heatColour(way.target_c, theme) }}
          />
        )}
        <span className={way.target_c == null ? 'text-ash' : 'figure text-[19px]'}>{way.heat_words}</span>
      </span>
      {priced && (
        <span className="figure pr-2 text-right text-[19px] max-bench:hidden">{way.price_words}</span>
      )}
    </button>
  )
}

const Unmapped = (): ReactNode => <span className="small block h-5 text-ash">once the cracks are mapped</span>

const EDGE = 8

function OddsHead(): ReactNode {
  const [frame, width] = useWidth<HTMLSpanElement>(160, 60)
  return (
    <span ref={frame} aria-hidden className="relative block h-5">
      {[0, 50, 100].map((of100) => (
        <span
          key={of100}
          className="figure small absolute -translate-x-1/2 text-ash"
          style={{ left: EDGE + oddsAt(of100 / 100, width - 2 * EDGE) }}
        >
          {of100}
        </span>
      ))}
    </span>
  )
}

/** The odds with their interval: four times in five the true share lies within it. */
function OddsBar({ odds, of100 }: { odds: Schemas['Odds']; of100: number }): ReactNode {
  const [frame, width] = useWidth<HTMLSpanElement>(160, 60)
  const at = (of: number): number => EDGE + oddsAt(of, width - 2 * EDGE)
  return (
    <span ref={frame} className="block">
      <svg width={width} height={46} aria-hidden className="block">
        {[0, 0.5, 1].map((tick) => (
          <path key={tick} d={`M${at(tick)} 0V46`} stroke="var(--rule)" />
        ))}
        <path
          d={`M${at(odds.low)} 23V35M${at(odds.low)} 29H${at(odds.high)}M${at(odds.high)} 23V35`}
          stroke="var(--ash)"
          strokeWidth="1.6"
        />
        <circle cx={at(odds.mean)} cy={29} r={7} fill="var(--chalk)" />
        <circle cx={at(odds.mean)} cy={29} r={2} fill="var(--iron)" />
        <text
          x={at(odds.mean)}
          y={16}
          textAnchor="middle"
          className="figure"
          fontSize="17"
          fill="var(--chalk)"
        >
          {of100}
        </text>
      </svg>
    </span>
  )
}

interface ClockProps {
  scale: ClockScale
  wanted: number | null
}

function ClockHead({ scale, wanted }: ClockProps): ReactNode {
  const [frame, width] = useWidth<HTMLSpanElement>(240, 100)
  const at = (minutes: number): number => EDGE + (minutes / scale.until) * (width - 2 * EDGE)
  const shown = wanted !== null && wanted >= 0 && wanted <= scale.until ? wanted : null
  const clear = (tick: number): boolean => shown === null || Math.abs(at(tick) - at(shown)) > 44
  return (
    <span ref={frame} className="relative block h-5">
      {scale.ticks.filter(clear).map((tick) => (
        <span
          key={tick}
          className="small absolute -translate-x-1/2 whitespace-nowrap text-ash"
          style={{ left: Math.min(width - 14, Math.max(14, at(tick))) }}
        >
          {ahead(tick)}
        </span>
      ))}
      {shown !== null && (
        <span
          className="small absolute -translate-x-1/2 font-semibold whitespace-nowrap"
          style={{ left: Math.min(width - 26, Math.max(26, at(shown))) }}
        >
          wanted
        </span>
      )}
    </span>
  )
}

interface ReadyBarProps extends ClockProps {
  ready: Schemas['Ready'] | null
}

/** From now until it can be ready; the day it is wanted stands as a post. */
function ReadyBar({ ready, scale, wanted }: ReadyBarProps): ReactNode {
  const [frame, width] = useWidth<HTMLSpanElement>(240, 100)
  const at = (minutes: number): number => EDGE + (minutes / scale.until) * (width - 2 * EDGE)
  const post = wanted !== null && wanted >= 0 && wanted <= scale.until ? at(wanted) : null
  const end = ready === null ? EDGE : at(ready.after_min)
  const before = end > width * 0.55
  return (
    <span ref={frame} className="block">
      <svg width={width} height={46} aria-hidden className="block">
        {post !== null && <path d={`M${post} 0V46`} stroke="var(--chalk)" strokeWidth="2" />}
        {ready === null ? (
          <text x={EDGE} y={28} fontSize="14" fill="var(--ash)">
            not known yet
          </text>
        ) : (
          <>
            <path d={`M${EDGE} 29H${end}`} stroke="var(--ash)" strokeWidth="1.6" />
            <circle cx={end} cy={29} r={6} fill="var(--chalk)" />
            <circle cx={end} cy={29} r={1.8} fill="var(--iron)" />
            <text
              x={before ? end - 12 : end + 12}
              y={17}
              textAnchor={before ? 'end' : 'start'}
              fontSize="15"
              fontWeight={ready.late ? 700 : 450}
              fill="var(--chalk)"
            >
              {ready.words}
              {ready.late ? ', too late' : ''}
            </text>
          </>
        )}
      </svg>
    </span>
  )
}
