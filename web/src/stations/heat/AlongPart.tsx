import { useId, useState, type ReactNode } from 'react'
import { themeOf, useShop } from '../../job/ShopContext'
import { heatColour } from '../../quantity/heat-colour'
import { minutes, temperature } from '../../quantity/show'

export interface AlongPartProps {
  /** (min, degC from one end to the other) */
  frames: readonly (readonly [number, readonly number[]])[]
  /** Where the joint lies, a fraction of the length. */
  station: number
}

/** The part from end to end as it warms: each place in its colour, its ends and its joint with their figures. */
export function AlongPart({ frames, station }: AlongPartProps): ReactNode {
  const shop = useShop()
  const id = useId()
  const [at, setAt] = useState(frames.length - 1)
  const frame = frames[Math.min(at, frames.length - 1)]
  if (frame === undefined) return null
  const [when, cells] = frame
  const theme = themeOf(shop)
  const say = (celsius: number | undefined) =>
    celsius === undefined ? '' : temperature(celsius, shop.units).join(' ')
  const wide = 600 / cells.length
  const joint = cells[Math.min(cells.length - 1, Math.floor(station * cells.length))]
  return (
    <figure className="m-0 flex flex-wrap items-center gap-x-5 gap-y-1">
      <svg viewBox="0 0 604 40" className="max-w-[604px] min-w-[260px] grow" aria-hidden>
        {cells.map((celsius, cell) => (
          <rect
            key={cell}
            x={2 + cell * wide}
            y="16"
            width={wide + 0.5}
            height="16"
            fill={heatColour(celsius, theme)}
          />
        ))}
        <path d="M2 10v28M602 10v28" stroke="var(--chalk)" strokeWidth="2" />
        <path
          d={`M${2 + station * 600} 12v-10m-5 5l5 6 5 -6`}
          stroke="var(--chalk)"
          strokeWidth="2"
          fill="none"
        />
      </svg>
      <figcaption className="text-[16px]">
        <label htmlFor={id} className="mr-2">
          After <b>{minutes(when)}</b>
        </label>
        {say(cells[0])}, joint {say(joint)}, {say(cells.at(-1))}
        <input
          id={id}
          type="range"
          min={0}
          max={frames.length - 1}
          value={at}
          onChange={(event) => setAt(Number(event.target.value))}
          aria-valuetext={`after ${minutes(when)}: ${say(cells[0])} at one end, ${say(joint)} at the joint, ${say(cells.at(-1))} at the other`}
          className="ml-3 h-11 w-[220px] align-middle accent-[var(--chalk)]"
        />
      </figcaption>
    </figure>
  )
}
