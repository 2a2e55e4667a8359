import { useId, type ReactNode } from 'react'
import type { UnitSystem } from '../api/client'
import type { Theme } from '../quantity/heat-colour'
import { temperature } from '../quantity/show'
import { HeatGradient } from './HeatGradient'
import { HeatRecord } from './HeatRecord'
import { path } from './pen'
import { stepFor, ticksApart, widthOf, type Tick } from './words'
import { BESIDE, layWords, WORD } from './chart-words'
import { useSize } from './useWidth'

type Point = readonly [number, number]

export interface HeatChartProps {
  name: string
  theme: Theme
  units: UnitSystem
  /** Minutes at the right end, degC at the top. */
  until: number
  top: number
  plan: readonly Point[]
  /** A second planned line, dashed. */
  beside?: readonly Point[]
  /** Between these it is likely to stay: 8 times in 10. */
  band?: { early: readonly Point[]; late: readonly Point[] } | undefined
  record: readonly { minutes: number; celsius: number }[]
  /** Records of lightings before it. */
  before?: readonly (readonly { minutes: number; celsius: number }[])[]
  byHand?: readonly { minutes: number; celsius: number }[]
  /** Heights worth a line, with their words. */
  levels: readonly { celsius: number; words: string }[]
  /** Times worth a post. */
  posts?: readonly {
    minutes: number
    figure: string
    words: string
    celsius: number
    /** How much sooner or later it may be. */
    between?: readonly [number, number] | null
  }[]
  now?: number | undefined
  /** Size of what lies on its top right corner, in pixels. */
  under?: { w: number; h: number } | undefined
  /** For a page of the record: smaller, so that its words stay readable. */
  small?: boolean
  /** The words under a time. */
  tick: (minutes: number) => string
  /** Minutes of the first of them: so that they fall on whole hours of a clock. */
  tickFrom?: number
}

const LEFT = 66

/** Temperature against time, both linear: plan thin, record in the colours of the iron. */
export function HeatChart(props: HeatChartProps): ReactNode {
  const {
    theme,
    units,
    until,
    top,
    plan,
    beside,
    band,
    record,
    before = [],
    byHand = [],
    levels,
    posts = [],
    now,
    tick,
    tickFrom = 0,
    small = false,
    under,
  } = props
  const id = useId()
  // As large as its place, so that its words keep their size; on a wide page they grow with it.
  const [frame, size] = useSize<SVGSVGElement>(
    small ? { width: 560, height: 240 } : { width: 880, height: 431 },
  )
  const grown = Math.max(1, size.width / 1100)
  const WIDTH = Math.max(300, size.width) / grown
  const HEIGHT = Math.max(150, size.height) / grown
  const shape = small ? 240 / 560 : size.width < 500 ? 0.85 : 0.49
  const BOTTOM = HEIGHT - 40
  const most = small ? 5 : 8
  const x = (minutes: number) => LEFT + (minutes / until) * (WIDTH - LEFT - 24)
  const y = (celsius: number) => BOTTOM - (Math.max(0, celsius) / top) * (BOTTOM - 14)
  const times = timeTicks({ until, tickFrom, tick, x, pxPerMin: (WIDTH - LEFT - 24) / until })
  const words = ticksApart(times, WORD, LEFT - 24, WIDTH - 2)
  const degrees = degreeTicks(top, units, most)
  const laid = layWords({
    posts: posts.map((post, at) => {
      const px = x(post.minutes)
      const wide = widthOf(post.words, WORD)
      const half = at < posts.length - 1 ? wide - BESIDE : wide / 2
      // Clear of the line where the words begin: it lies higher there.
      const begins = plan.findLast(([minutes]) => x(minutes) <= px - half)
      const clear = Math.min(y(post.celsius), begins === undefined ? y(post.celsius) : y(begins[1]) + 8)
      return { key: post.words, x: px, y: clear, figure: post.figure, words: post.words }
    }),
    levels: levels.map((level) => ({ words: level.words, x: WIDTH - 14, y: y(level.celsius) - 6 })),
    now: now === undefined ? null : { x: x(now) + 8, y: BOTTOM - 12 },
    line: plan.map(([minutes, celsius]) => [x(minutes), y(celsius)] as const),
    frame: { x: LEFT + 4, y: 0, w: WIDTH - LEFT - 8, h: BOTTOM - 4 },
    under: under === undefined || size.width < 500 ? undefined : { x: WIDTH - under.w, y: 0, ...under },
  })
  const points = (line: readonly Point[]) => path(line.map(([minutes, celsius]) => [x(minutes), y(celsius)]))
  return (
    <svg
      ref={frame}
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className={`max-h-full w-full ${small ? 'print:max-h-[190px]' : ''}`}
      style={{ aspectRatio: `1 / ${shape}` }}
      role="img"
      aria-label={props.name}
    >
      <defs>
        <HeatGradient id={`${id}-scale`} theme={theme} y={y} />
      </defs>
      <g stroke="var(--rule)" fontSize="14">
        {degrees.map((celsius, at) => (
          <g key={celsius}>
            <path d={`M${LEFT} ${y(celsius)}H${WIDTH - 12}`} />
            <text
              x={LEFT - 16}
              y={Math.max(13, y(celsius) + 5)}
              textAnchor="end"
              fill="var(--ash)"
              stroke="none"
            >
              {at === degrees.length - 1
                ? temperature(celsius, units).join(' ')
                : temperature(celsius, units)[0]}
            </text>
          </g>
        ))}
        {times.map(({ at, x: mark }) => (
          <path key={at} d={`M${mark} 8V${BOTTOM + 6}`} />
        ))}
        {words.map(({ at, x: middle, word }) => (
          <text key={at} x={middle} y={BOTTOM + 24} textAnchor="middle" fill="var(--ash)" stroke="none">
            {word}
          </text>
        ))}
      </g>
      <rect x={LEFT - 11} y={y(top)} width="7" height={BOTTOM - y(top)} fill={`url(#${id}-scale)`} />
      <path d={`M${LEFT - 14} ${BOTTOM}H${WIDTH}`} stroke="var(--dim)" />
      {band !== undefined && band.early.length > 1 && (
        <path
          d={`${points(band.early)}L${points(band.late.toReversed()).slice(1)}Z`}
          fill="var(--rule)"
          data-testid="chart-band"
        />
      )}
      <g fill="none" stroke="var(--ash)">
        {levels.map((level) => (
          <g key={level.words}>
            <path d={`M${LEFT} ${y(level.celsius)}H${WIDTH - 12}`} strokeDasharray="2 4" />
          </g>
        ))}
        {plan.length > 1 && <path d={points(plan)} strokeWidth="1.8" />}
        {beside !== undefined && beside.length > 1 && (
          <path d={points(beside)} strokeWidth="1.4" strokeDasharray="6 5" />
        )}
      </g>
      {before.map((earlier, at) => (
        <HeatRecord key={at} readings={earlier} x={x} y={y} width={6} theme={theme} earlier />
      ))}
      <HeatRecord readings={record} x={x} y={y} width={6} theme={theme} now={now !== undefined} />
      <g stroke="var(--chalk)" strokeWidth="1.8">
        {byHand.map((reading) => (
          <path
            key={reading.minutes}
            d={`M${x(reading.minutes) - 8} ${y(reading.celsius)}h16M${x(reading.minutes)} ${y(reading.celsius) - 8}v16`}
          />
        ))}
      </g>
      {posts.map((post) => {
        const px = x(post.minutes)
        return (
          <g key={post.words} stroke="var(--chalk)">
            <path
              d={`M${px} ${BOTTOM}V${y(post.celsius)}M${px - 6} ${y(post.celsius) - 6}l12 12m0 -12l-12 12`}
              strokeWidth="2"
            />
            {post.between != null && (
              <path d={`M${x(post.between[0])} ${BOTTOM}H${x(post.between[1])}`} strokeWidth="5" />
            )}
          </g>
        )
      })}
      {now !== undefined && (
        <path
          d={`M${x(now)} ${BOTTOM}V${y(record.at(-1)?.celsius ?? 0) + 12}`}
          stroke="var(--chalk)"
          strokeWidth="1.2"
        />
      )}
      <Words laid={laid} />
    </svg>
  )
}

/** What is written on it, clear of its lines. */
function Words({ laid }: { laid: ReturnType<typeof layWords> }): ReactNode {
  return (
    <>
      {laid.map(({ key, box, lines }) => (
        <g key={key}>
          {lines.map((line) => (
            <text
              key={line.word}
              x={box.x + box.w / 2}
              y={box.y + line.base}
              textAnchor="middle"
              fontSize={line.size}
              fontWeight={line.bold === true ? 600 : undefined}
              fill={line.dim === true ? 'var(--ash)' : 'var(--chalk)'}
              className={line.size > WORD ? 'figure' : undefined}
            >
              {line.word}
            </text>
          ))}
        </g>
      ))}
    </>
  )
}

const TIME_STEPS = [10, 20, 30, 60, 120, 180, 240, 360, 720, 1440, 2880, 5760]

interface Times {
  until: number
  tickFrom: number
  tick: (minutes: number) => string
  x: (minutes: number) => number
  pxPerMin: number
}

/** Marks at round times, as many as there is room for their words. */
function timeTicks({ until, tickFrom, tick, x, pxPerMin }: Times): Tick[] {
  const widest = (every: number) =>
    Math.max(...range(until, tickFrom, every).map((at) => widthOf(tick(at), WORD)), 0)
  const every = TIME_STEPS.find((step) => step * pxPerMin >= widest(step) + 10) ?? stepFor(TIME_STEPS, 0, 1)
  return range(until, tickFrom, every).map((at) => ({ at, x: x(at), word: tick(at) }))
}

function range(until: number, from: number, every: number): number[] {
  const count = Math.max(0, Math.floor((until - from) / every) + 1)
  return Array.from({ length: count }, (_, at) => from + at * every)
}

/** Round degrees of the shop's unit, as degC: at most `most` of them from the foot to `top`. */
function degreeTicks(top: number, units: UnitSystem, most: number): readonly number[] {
  const [zero, degree] = units === 'imperial' ? [-32 / 1.8, 1 / 1.8] : [0, 1]
  const every = [20, 50, 100, 200, 400, 800].find((step) => top / (step * degree) <= most) ?? 1000
  const count = Math.floor((top - zero) / (every * degree))
  return Array.from({ length: count + 1 }, (_, at) => zero + at * every * degree).filter((c) => c >= 0)
}
