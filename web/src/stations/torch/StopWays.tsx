import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { minutes } from '../../quantity/show'
import { Button } from '../../ui/Button'

export interface StopWaysProps {
  rule: Schemas['StopRule']
  onStop: () => void
}

/** The four ways side by side, each on the same scale of odds. */
export function StopWays({ rule, onStop }: StopWaysProps): ReactNode {
  return (
    <section aria-label="Go on or stop" className="mt-5 border-t-[1.5px] border-scribe pt-3">
      <h3 className="text-[22px] leading-7">Go on, or stop?</h3>
      {rule.because.map((sentence) => (
        <p key={sentence} className="border-l-[3px] border-chalk pl-3 font-semibold">
          {sentence}
        </p>
      ))}
      <ul className="mt-2 flex flex-col gap-3">
        {rule.ways.map((way) => (
          <li key={way.id} data-testid={`stop-${way.id}`}>
            <p className="flex flex-wrap items-baseline justify-between gap-x-3">
              <b className="text-[17px]">{way.words}</b>
              <span>
                {way.odds_words}
                {way.minutes != null && <span className="text-ash">, {minutes(way.minutes)} from now</span>}
              </span>
            </p>
            {way.odds != null && (
              <svg viewBox="0 0 500 12" className="w-full" aria-hidden>
                <path d="M0 6H500" stroke="var(--rule)" />
                <path d={`M0 6H${500 * way.odds}`} stroke="var(--chalk)" strokeWidth="4" />
                <path d={`M${500 * way.odds} 0v12`} stroke="var(--chalk)" strokeWidth="2" />
              </svg>
            )}
            <p className="text-ash">{way.needs.join(' ')}</p>
          </li>
        ))}
      </ul>
      <div className="mt-3">
        <Button large onPress={onStop}>
          <span aria-hidden className="size-5 border-[2.5px] border-chalk" /> It must stop
        </Button>
      </div>
    </section>
  )
}
