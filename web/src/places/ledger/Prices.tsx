import type { ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import type { Opened } from './CasesSheet'

const WIDE = 640
const HIGH = 220
const PAD = 22

/** Fewer say it in words alone. */
const DRAWN_FROM = 3

interface PricesProps {
  prices: Schemas['Prices']
  onOpen: (opened: Opened) => void
}

/** What was asked against the hours of hands: each repair a mark, the line what all of them brought. */
export function Prices({ prices, onOpen }: PricesProps): ReactNode {
  const x = (hours: number) => PAD + (hours / prices.most_hours) * (WIDE - 2 * PAD)
  const y = (price: number) => HIGH - PAD - (price / prices.most_price) * (HIGH - 2 * PAD)
  const drawn = prices.marks.length >= DRAWN_FROM
  // The line ends where the drawing does.
  const far = Math.min(prices.most_hours, prices.most_price / prices.an_hour)
  return (
    <section aria-label="Prices against hours" className="mt-6 border-t border-scribe pt-3">
      <h2 className="words mb-1 text-[28px] leading-9">What was asked, against hours of hands</h2>
      <p>{prices.words}.</p>
      <button
        type="button"
        aria-label={drawn ? 'What was asked for each repair' : undefined}
        onClick={() => onOpen({ title: 'What was asked', of: 'price', line: '', cases: prices.marks })}
        className="flex min-h-11 w-full max-w-[640px] flex-col items-start text-left underline"
      >
        {!drawn ? (
          'Which it was'
        ) : (
          <svg viewBox={`0 0 ${WIDE} ${HIGH}`} className="block w-full" aria-hidden>
            <path
              d={`M${PAD} ${PAD}V${HIGH - PAD}H${WIDE - PAD}`}
              fill="none"
              stroke="var(--scribe)"
              strokeWidth="1.5"
            />
            <path
              d={`M${x(0)} ${y(0)}L${x(far)} ${y(far * prices.an_hour)}`}
              stroke="var(--ash)"
              strokeWidth="2"
              strokeDasharray="2 5"
            />
            {prices.marks.map((mark) => (
              <circle
                key={mark.case}
                cx={x(mark.hours)}
                cy={y(mark.price)}
                r="5"
                fill="var(--iron)"
                stroke="var(--chalk)"
                strokeWidth="5"
              />
            ))}
          </svg>
        )}
      </button>
      {drawn && (
        <p className="small text-ash">
          Across: hours. Up: what was asked. Dashed: what all of them brought an hour.
        </p>
      )}
    </section>
  )
}
