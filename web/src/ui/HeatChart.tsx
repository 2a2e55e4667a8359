import { useId, type ReactNode } from 'react'
import type { UnitSystem } from '../api/client'
import type { Theme } from '../quantity/heat-colour'
import { temperature } from '../quantity/show'
import { HeatGradient } from './HeatGradient'
import { HeatRecord } from './HeatRecord'
import { path } from './heat-line-layout'
import { useWidth } from './useWidth'

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
  record: readonly { minutes: number; celsius: number }[]
  byHand?: readonly { minutes: number; celsius: number }[]
  /** Heights worth a line, with their words. */
  levels: readonly { celsius: number; words: string }[]
  /** Times worth a post. */
  posts?: readonly { minutes: number; figure: string; words: string; celsius: number }[]
  now?: number | undefined
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
    record,
    byHand = [],
    levels,
    posts = [],
    now,
    tick,
    tickFrom = 0,
    small = false,
  } = props
  const id = useId()
  // As wide as its place, so that its words keep their size.
  const [frame, width] = useWidth<SVGSVGElement>(small ? 560 : 880, 300)
  const WIDTH = Math.min(width, 1100)
  const HEIGHT = small ? 240 : WIDTH < 500 ? WIDTH * 0.85 : WIDTH * 0.49
  const BOTTOM = HEIGHT - 40
  const most = small ? 5 : 8
  const mostTimes = WIDTH < 420 ? 3 : WIDTH < 640 ? 5 : 8
  const x = (minutes: number) => LEFT + (minutes / until) * (WIDTH - LEFT - 24)
  const y = (celsius: number) => BOTTOM - (Math.max(0, celsius) / top) * (BOTTOM - 14)
  const everyMin =
    [10, 20, 30, 60, 120, 180, 240, 360, 720, 1440].find((step) => until / step <= mostTimes) ?? 2880
  const degrees = degreeTicks(top, units, most)
  const points = (line: readonly Point[]) => path(line.map(([minutes, celsius]) => [x(minutes), y(celsius)]))
  return (
    <svg
      ref={frame}
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="max-h-full w-full"
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
            <text x={LEFT - 20} y={y(celsius) + 5} textAnchor="end" fill="var(--ash)" stroke="none">
              {at === degrees.length - 1
                ? temperature(celsius, units).join(' ')
                : temperature(celsius, units)[0]}
            </text>
          </g>
        ))}
        {Array.from(
          { length: Math.floor((until - tickFrom) / everyMin) + 1 },
          (_, at) => tickFrom + at * everyMin,
        ).map((minutes) => (
          <g key={minutes}>
            <path d={`M${x(minutes)} 8V${BOTTOM + 6}`} />
            <text x={x(minutes)} y={BOTTOM + 24} textAnchor="middle" fill="var(--ash)" stroke="none">
              {tick(minutes)}
            </text>
          </g>
        ))}
      </g>
      <rect x={LEFT - 11} y={y(top)} width="7" height={BOTTOM - y(top)} fill={`url(#${id}-scale)`} />
      <path d={`M${LEFT - 14} ${BOTTOM}H${WIDTH}`} stroke="var(--dim)" />
      <g fill="none" stroke="var(--ash)">
        {levels.map((level) => (
          <g key={level.words}>
            <path d={`M${LEFT} ${y(level.celsius)}H${WIDTH - 12}`} strokeDasharray="2 4" />
            <text
              x={WIDTH - 14}
              y={y(level.celsius) - 6}
              textAnchor="end"
              fontSize="14"
              fill="var(--chalk)"
              stroke="none"
            >
              {level.words}
            </text>
          </g>
        ))}
        {plan.length > 1 && <path d={points(plan)} strokeWidth="1.8" />}
        {beside !== undefined && beside.length > 1 && (
          <path d={points(beside)} strokeWidth="1.4" strokeDasharray="6 5" />
        )}
      </g>
      <HeatRecord readings={record} x={x} y={y} width={6} theme={theme} now={now !== undefined} />
      <g stroke="var(--chalk)" strokeWidth="1.8">
        {byHand.map((reading) => (
          <path
            key={reading.minutes}
            d={`M${x(reading.minutes) - 8} ${y(reading.celsius)}h16M${x(reading.minutes)} ${y(reading.celsius) - 8}v16`}
          />
        ))}
      </g>
      {posts.map((post, at) => {
        const px = x(post.minutes)
        // Where the next post stands close, this one's words stand above its words.
        const next = posts[at + 1]
        const crowded = next !== undefined && x(next.minutes) - px < 130
        const anchor = px > WIDTH - 70 ? 'end' : 'middle'
        const tx = anchor === 'end' ? WIDTH - 4 : px
        // Clear of the line where the words begin: it lies higher there.
        const begins = plan.findLast(([minutes]) => x(minutes) <= tx - (anchor === 'end' ? 112 : 58))
        const clear = Math.min(y(post.celsius), begins === undefined ? y(post.celsius) : y(begins[1]) + 8)
        const py = clear - (crowded ? 46 : 0)
        return (
          <g key={post.words}>
            <path
              d={`M${px} ${BOTTOM}V${y(post.celsius)}M${px - 6} ${y(post.celsius) - 6}l12 12m0 -12l-12 12`}
              stroke="var(--chalk)"
              strokeWidth="2"
            />
            <text x={tx} y={py - 36} textAnchor={anchor} fontSize="28" className="figure" fill="var(--chalk)">
              {post.figure}
            </text>
            <text x={tx} y={py - 16} textAnchor={anchor} fontSize="14" fill="var(--ash)">
              {post.words}
            </text>
          </g>
        )
      })}
      {now !== undefined && (
        <g>
          <path
            d={`M${x(now)} ${BOTTOM}V${y(record.at(-1)?.celsius ?? 0) + 12}`}
            stroke="var(--chalk)"
            strokeWidth="1.2"
          />
          <text x={x(now) + 8} y={BOTTOM - 12} fontSize="14" fontWeight="600" fill="var(--chalk)">
            now
          </text>
        </g>
      )}
    </svg>
  )
}

/** Round degrees of the shop's unit, as degC: at most `most` of them from the foot to `top`. */
function degreeTicks(top: number, units: UnitSystem, most: number): readonly number[] {
  const [zero, degree] = units === 'imperial' ? [-32 / 1.8, 1 / 1.8] : [0, 1]
  const every = [20, 50, 100, 200, 400, 800].find((step) => top / (step * degree) <= most) ?? 1000
  const count = Math.floor((top - zero) / (every * degree))
  return Array.from({ length: count + 1 }, (_, at) => zero + at * every * degree).filter((c) => c >= 0)
}
