import type { ReactNode } from 'react'
import type { Schemas } from '../api/client'
import type { Theme } from '../quantity/heat-colour'
import { HeatRecord } from './HeatRecord'
import type { LineBox, LineLayout, LinePlan } from './heat-line-layout'
import { path } from './pen'
import { roundWordAt, ROUND_HALF } from './line-words'
import { PunchMark } from './PunchMark'

export interface HeatLineProps {
  box: LineBox
  layout: LineLayout
  height: number
  plans: readonly (LinePlan & { name: string })[]
  stations: readonly Schemas['StationState'][]
  current: number
  record: readonly { minutes: number; celsius: number }[]
  earlier: readonly (readonly { minutes: number; celsius: number }[])[]
  theme: Theme
  strokeWidth: number
  markRadius: number
  hot: boolean
  /** Stopped after this station: two bars, nothing beyond. */
  stoppedAt: number | null
  /** From the second on, a line leads back from Check to Cracks. */
  round: number
  /** From where to where another word lies in the row of that line. */
  taken?: readonly [from: number, to: number] | undefined
  children?: ReactNode
}

/** The backbone: cold stages on the left, the climb, the plateau, the long way down, cold again. */
export function HeatLine(props: HeatLineProps): ReactNode {
  const { box, layout, plans, record, earlier, theme, stoppedAt } = props
  const { shelf } = box
  const marks = props.stations.slice(0, stoppedAt === null ? 10 : stoppedAt + 1)
  const done = marks.findIndex((state) => state.amount !== 'enough')
  const coldDone = layout.stations[Math.min(done === -1 ? 5 : done, props.current, 5)] ?? box.pad
  return (
    <svg
      width="100%"
      viewBox={`0 0 ${box.width} ${props.height}`}
      aria-hidden
      className="block overflow-visible"
    >
      <Shelf box={box} layout={layout} stoppedAt={stoppedAt} />
      {props.children}
      {props.round > 1 && stoppedAt === null && (
        <ReturnLine round={props.round} shelf={shelf} layout={layout} taken={props.taken} />
      )}
      {stoppedAt === null &&
        plans.map((plan, at) => (
          <PlannedLine
            key={plan.name}
            plan={plan}
            layout={layout}
            shelf={shelf}
            open={plans.length > 1}
            first={at === 0}
          />
        ))}
      <path
        data-shelf=""
        d={`M${box.pad} ${shelf}H${coldDone}`}
        stroke="var(--dim)"
        strokeWidth={props.strokeWidth}
        fill="none"
      />
      {earlier.map((readings, at) => (
        <HeatRecord
          key={at}
          readings={readings}
          x={layout.x}
          y={layout.y}
          width={props.strokeWidth}
          theme={theme}
          earlier
        />
      ))}
      <HeatRecord
        readings={record}
        x={layout.x}
        y={layout.y}
        width={props.strokeWidth}
        theme={theme}
        now={props.hot}
      />
      {marks.map((state, at) => (
        <PunchMark
          key={state.station}
          x={layout.stations[at] ?? 0}
          y={markY(at, plans[0] ?? null, layout, shelf)}
          radius={at === props.current ? props.markRadius * 1.25 : props.markRadius}
          amount={state.amount}
        />
      ))}
    </svg>
  )
}

/** Torch and Cooling ride on the plateau, all others lie on the shelf. */
function markY(at: number, plan: LinePlan | null, layout: LineLayout, shelf: number): number {
  if ((at !== 6 && at !== 7) || plan === null || plan.cold) return shelf
  const minutes = layout.minutesAt(layout.stations[at] ?? 0)
  const after = plan.curve.findIndex(([when]) => when >= minutes)
  const [from, to] = [plan.curve[after - 1], plan.curve[after]]
  if (to === undefined) return shelf
  const part = from === undefined || to[0] === from[0] ? 1 : (minutes - from[0]) / (to[0] - from[0])
  return layout.y(from === undefined ? to[1] : from[1] + (to[1] - from[1]) * part)
}

function Shelf({
  box,
  layout,
  stoppedAt,
}: {
  box: LineBox
  layout: LineLayout
  stoppedAt: number | null
}): ReactNode {
  const stop = stoppedAt === null ? null : (layout.stations[stoppedAt] ?? 0) + 26
  return (
    <g stroke="var(--rule)">
      <path data-shelf="" d={`M0 ${box.shelf}H${stop ?? box.width}`} />
      {stop !== null && (
        <path
          d={`M${stop} ${box.shelf - 9}v18M${stop + 8} ${box.shelf - 9}v18`}
          stroke="var(--chalk)"
          strokeWidth={2.4}
        />
      )}
    </g>
  )
}

interface ReturnLineProps {
  round: number
  shelf: number
  layout: LineLayout
  taken: readonly [number, number] | undefined
}

/** What did not hold at the check leads back to the map. */
function ReturnLine({ round, shelf, layout, taken }: ReturnLineProps): ReactNode {
  const from = layout.stations[8] ?? 0
  const to = (layout.stations[2] ?? 0) + 88
  const y = shelf + 15
  const middle = roundWordAt(to, from, taken)
  const back = middle === null ? `H${to}` : `H${middle + ROUND_HALF}M${middle - ROUND_HALF} ${y}H${to}`
  return (
    <g fill="none" stroke="var(--ash)" strokeWidth={1.4}>
      <path d={`M${from} ${shelf + 9}V${y}${back}`} />
      <path d={`M${to} ${y}l9 -4.500v9z`} fill="var(--ash)" stroke="none" />
      {middle !== null && (
        <text
          x={middle}
          y={y + 5}
          textAnchor="middle"
          fontSize="14"
          fontWeight="600"
          fill="var(--chalk)"
          stroke="none"
        >
          round {round}
        </text>
      )}
    </g>
  )
}

interface PlannedLineProps {
  plan: LinePlan
  layout: LineLayout
  shelf: number
  /** Several are possible still. */
  open: boolean
  first: boolean
}

function PlannedLine({ plan, layout, shelf, open, first }: PlannedLineProps): ReactNode {
  const { x, y, cut } = layout
  const ends = layout.stations[9] ?? 0
  const stroke = { stroke: 'var(--ash)', strokeWidth: 1.4, fill: 'none' }
  if (plan.cold) return <path d={`M${layout.heatX} ${shelf}H${ends}`} {...stroke} />
  const unwrap = plan.unwrap_at ?? null
  const shown = plan.curve.filter(([when]) => unwrap === null || when <= unwrap)
  const before = shown.filter(([when]) => cut === null || when <= cut.from)
  const after = cut === null ? [] : shown.filter(([when]) => when >= cut.to)
  const pixels = (points: typeof shown) => points.map(([when, celsius]) => [x(when), y(celsius)] as const)
  const dash = open ? { strokeDasharray: '6 4' } : {}
  return (
    <g {...stroke}>
      <path d={path([[layout.heatX, shelf], ...pixels(before)])} {...dash} />
      {after.length > 1 && <path d={path(pixels(after))} {...dash} />}
      {cut !== null && (
        <Slashes at={x(cut.from)} ys={[shelf, y(shown.findLast(([w]) => w <= cut.from)?.[1] ?? 65)]} />
      )}
      {unwrap !== null && (
        <path d={`M${x(unwrap)} ${shelf}V${y(65) - 10}`} stroke="var(--chalk)" strokeWidth={1.8} />
      )}
      {unwrap !== null && first && <path d={`M${x(unwrap)} ${shelf}H${ends}`} />}
    </g>
  )
}

function Slashes({ at, ys }: { at: number; ys: readonly number[] }): ReactNode {
  return ys.map((y) => (
    <path
      key={y}
      d={`M${at - 1} ${y + 8}l7 -16M${at + 9} ${y + 8}l7 -16`}
      stroke="var(--ash)"
      strokeWidth={1.4}
    />
  ))
}
