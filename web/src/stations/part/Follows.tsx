import type { ReactNode } from 'react'
import { Fig } from '../../job/Fig'
import { useJob } from '../../job/JobContext'
import { useStationWord } from '../../job/useStationWord'

export interface FollowsProps {
  /** The card stands beside it, with what matters here and at the next station: that is not said twice. */
  besideTheCard?: boolean
}

/** What follows at once from what is known of the part: locks, time, guesses, cautions. */
export function Follows({ besideTheCard = false }: FollowsProps): ReactNode {
  const { view } = useJob()
  const { part, figures } = view.plan
  const { available } = view
  const word = useStationWord()
  const onTheCard = ['part', 'iron']
  const cautions = part.cautions.filter(({ station }) => !besideTheCard || !onTheCard.includes(station))
  const forbidden = part.forbidden.map((test) => test.test).join(', ')
  return (
    <section aria-label="What follows">
      <h2 className="text-[22px] leading-7">What follows</h2>
      {available != null && (
        <p className={`mt-1 ${available.short ? 'border-l-[3px] border-chalk pl-3 font-semibold' : ''}`}>
          {available.sentence}
        </p>
      )}
      {figures.some((figure) => figure.id === 'part.replace') && (
        <p className="mt-1">
          To replace it: <Fig id="part.replace" side="bottom" />
        </p>
      )}
      {part.cause !== '' && <p className="mt-1">{part.cause}</p>}
      {part.guesses.map((guess) => (
        <p key={guess} className="mt-1 border-l-[1.5px] border-dashed border-dim pl-3" data-testid="guess">
          {guess}
        </p>
      ))}
      {forbidden !== '' && <p className="mt-1">No marks: {forbidden} are not allowed on it.</p>}
      <ul className="mt-1">
        {cautions.map((caution) => (
          <li key={caution.sentence} className="flex gap-2 py-0.5 leading-[18px]">
            <svg width="16" height="16" aria-hidden className="mt-0.5 shrink-0">
              <path d="M8 1.5 15 14.5H1z" fill="none" stroke="var(--chalk)" strokeWidth="1.5" />
            </svg>
            <span>
              {caution.sentence} <span className="small text-ash">{word(caution.station)}</span>
            </span>
          </li>
        ))}
      </ul>
      {part.cautions.length === 0 && part.guesses.length === 0 && (
        <p className="text-ash">Nothing yet: it comes as the sheet fills.</p>
      )}
    </section>
  )
}
