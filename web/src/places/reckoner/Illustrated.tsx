import type { ReactNode } from 'react'
import type { Schemas, UnitSystem } from '../../api/client'
import type { Theme } from '../../quantity/heat-colour'
import { temperature, tickOf } from '../../quantity/show'
import { HeatChart } from '../../ui/HeatChart'
import { spot } from '../../ui/pen'

type Illustration = Schemas['Illustration']
type Of<Kind extends Illustration['kind']> = Extract<Illustration, { kind: Kind }>

export interface IllustratedProps {
  drawn: Illustration
  units: UnitSystem
  theme: Theme
}

/** The answer as it looks on the iron. */
export function Illustrated({ drawn, units, theme }: IllustratedProps): ReactNode {
  switch (drawn.kind) {
    case 'curve':
      return <Curve drawn={drawn} units={units} theme={theme} />
    case 'tip':
      return <Tip {...drawn} />
    case 'row':
      return <Row {...drawn} />
    case 'groove':
      return <Groove {...drawn} />
  }
}

function Curve({ drawn, units, theme }: { drawn: Of<'curve'>; units: UnitSystem; theme: Theme }): ReactNode {
  const until = Math.max(1, ...drawn.points.map(([minutes]) => minutes))
  const top = Math.max(...drawn.points.map(([, celsius]) => celsius), ...drawn.against_c) * 1.12
  return (
    <HeatChart
      name="The temperature through its time"
      theme={theme}
      units={units}
      until={until}
      top={top}
      plan={drawn.points}
      record={[]}
      levels={drawn.against_c.map((celsius) => ({ celsius, words: temperature(celsius, units).join(' ') }))}
      tick={tickOf(until)}
    />
  )
}

const frame = 'w-full fill-none stroke-current'

function Tip({ drill_mm, offset_mm, beyond_mm }: Of<'tip'>): ReactNode {
  const [near, far] = beyond_mm
  const reach = Math.max(offset_mm + drill_mm, far, drill_mm) * 1.25
  const scale = 190 / reach
  const x = (mm: number) => 170 + mm * scale
  return (
    <svg viewBox="0 0 380 200" className={frame} role="img" aria-label="The end of the crack and its hole">
      <path d="M0 20H380M0 180H380" className="text-dim" strokeWidth="1.5" />
      <path d={`M0 100L34 94L70 104L112 97L${x(0)} 100`} strokeWidth="3" />
      <path d={`M${x(0)} 100H${x(far)}`} strokeWidth="3" strokeDasharray="2 6" />
      <circle cx={x(offset_mm)} cy="100" r={(drill_mm / 2) * scale} strokeWidth="2.5" />
      <path d={`M${x(offset_mm) - 6} 100h12M${x(offset_mm)} 94v12`} strokeWidth="1.5" />
      <path d={`M${x(near)} 148V156H${x(far)}V148`} className="text-ash" strokeWidth="1.5" />
      <text
        x={x((near + far) / 2)}
        y="176"
        textAnchor="middle"
        className="fill-ash stroke-none"
        fontSize="14"
      >
        here it ends, 8 of 10
      </text>
      <text
        x={x(Math.min(0, offset_mm - drill_mm / 2)) - 8}
        y="78"
        textAnchor="end"
        className="fill-current stroke-none"
        fontSize="14"
      >
        end seen
      </text>
    </svg>
  )
}

/** House: more are not told apart in a drawing of this size. */
const DRAWN_MOST = 90

function Row({ count, pin_mm, pitch_mm, closed }: Of<'row'>): ReactNode {
  const drawn = Math.min(count, DRAWN_MOST)
  const label = `${count} pins ${closed ? 'in a ring' : 'in a row'}`
  const pins = Array.from({ length: drawn }, (_, at) => at)
  if (closed) {
    const around = Math.max(pitch_mm * count, pin_mm * 3)
    const radius = around / (2 * Math.PI)
    const scale = 84 / (radius + pin_mm / 2)
    return (
      <svg viewBox="0 0 380 200" className={frame} role="img" aria-label={label}>
        {pins.map((at) => {
          const turn = (at / drawn) * 2 * Math.PI
          return (
            <circle
              key={at}
              cx={190 + radius * scale * Math.sin(turn)}
              cy={100 - radius * scale * Math.cos(turn)}
              r={(pin_mm / 2) * scale}
              strokeWidth="1.5"
            />
          )
        })}
      </svg>
    )
  }
  const long = pitch_mm * (count - 1) + pin_mm
  const scale = Math.min(360 / long, 60 / pin_mm)
  return (
    <svg viewBox="0 0 380 90" className={frame} role="img" aria-label={label}>
      <path d="M0 45L60 41L140 49L230 42L310 48L380 45" className="text-dim" strokeWidth="1.5" />
      {pins.map((at) => (
        <circle
          key={at}
          cx={190 + (at - (count - 1) / 2) * pitch_mm * scale}
          cy="45"
          r={(pin_mm / 2) * scale}
          strokeWidth="1.5"
        />
      ))}
    </svg>
  )
}

function Groove({ outline_mm, wall_mm }: Of<'groove'>): ReactNode {
  const widest = Math.max(...outline_mm.map(([half]) => half))
  const scale = Math.min(130 / wall_mm, 160 / Math.max(widest, 1))
  const x = (mm: number) => 190 + mm * scale
  const y = (mm: number) => 160 - mm * scale
  const side = (sign: number) => outline_mm.map(([half, up]) => spot(x(sign * half), y(up))).join('L')
  const floor = outline_mm[0]?.[1] ?? 0
  const top = y(wall_mm)
  return (
    <svg viewBox="0 0 380 200" className={frame} role="img" aria-label="The groove in its wall">
      <path d={`M0 ${y(0)}H380M0 ${top}H${x(-widest)}M380 ${top}H${x(widest)}`} strokeWidth="2" />
      <path d={`M${x(0)} ${y(floor)}L${side(-1)}M${x(0)} ${y(floor)}L${side(1)}`} strokeWidth="2.5" />
      <path d={`M${x(0)} ${y(floor)}V${y(0)}`} className="text-dim" strokeWidth="1.5" strokeDasharray="3 4" />
      <path
        d={`M${x(-widest)} ${top}Q${x(0)} ${top - 16} ${x(widest)} ${top}`}
        className="text-ash"
        strokeWidth="1.5"
      />
    </svg>
  )
}
