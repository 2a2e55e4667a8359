import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { clockFace } from '../../quantity/clock-face'

export interface BigClockProps {
  clock: Schemas['TorchClock']
  now: number
}

/** What runs down, large: how long, what it counts, what comes then; a rule that shortens with it. */
export function BigClock({ clock, now }: BigClockProps): ReactNode {
  const left = Math.max(0, (clock.ends_min - now) * 60)
  // One tick for every ten seconds up to five minutes; what is longer fills the rule.
  const ticks = Math.min(30, Math.ceil(left / 10))
  return (
    <div data-testid="torch-clock">
      <p className="label text-[16px]">{clock.words}</p>
      <p className="figure text-[min(88px,22vw)] leading-[0.95]" role="timer" aria-label={clock.words}>
        {clockFace(left)}
      </p>
      <p className="max-w-[300px] text-[17px]">
        then <b>{clock.then}</b>
      </p>
      <svg viewBox="0 0 184 16" className="mt-1 w-[184px]" aria-hidden>
        {Array.from({ length: 30 }, (_, at) => (
          <path
            key={at}
            d={`M${2 + at * 6.1} 1v${at % 6 === 0 ? 14 : 9}`}
            stroke={at < ticks ? 'var(--chalk)' : 'var(--rule)'}
            strokeWidth={at < ticks ? 2.2 : 1.5}
          />
        ))}
      </svg>
    </div>
  )
}
