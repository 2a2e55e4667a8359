import type { ReactNode } from 'react'
import type { Schemas } from '../../../api/client'

export interface WhereToBeginProps {
  beginnings: Schemas['Beginnings'] | null
  /** They could not be asked for. */
  isLost: boolean
  flame: { at: Schemas['At'] | null; swept: boolean }
  onChoose: (place: Schemas['Beginning']) => void
}

/** Places of the face, each tried from cold: the best first, what must not be last. */
export function WhereToBegin({ beginnings, isLost, flame, onChoose }: WhereToBeginProps): ReactNode {
  if (beginnings === null) {
    return (
      <p className="text-ash">
        {isLost ? 'Where to begin could not be asked for.' : 'Trying the flame at several places of it.'}
      </p>
    )
  }
  return (
    <section aria-label="Where to begin">
      <h3 className="text-[22px]">{beginnings.sentence}</h3>
      <ol className="border-b border-rule">
        {beginnings.places.map((place) => (
          <li key={place.name} className="border-t border-rule">
            <button
              type="button"
              aria-pressed={isThere(place, flame)}
              onClick={() => onChoose(place)}
              className={`w-full py-1 text-left ${isThere(place, flame) ? 'border-l-[3px] border-l-chalk pl-2' : ''}`}
            >
              <span className="flex items-baseline justify-between gap-3 text-[19px]">
                {place.state === 'runs' ? <s className="font-semibold">{place.name}</s> : <b>{place.name}</b>}
                <span>{place.minutes_words === '' ? 'not warm enough' : place.minutes_words}</span>
              </span>
              <span className="block">
                {place.share_words}; {place.gap_words}
              </span>
            </button>
          </li>
        ))}
      </ol>
    </section>
  )
}

const isThere = (place: Schemas['Beginning'], flame: WhereToBeginProps['flame']): boolean =>
  place.swept === flame.swept &&
  flame.at !== null &&
  Math.hypot(place.at.x_mm - flame.at.x_mm, place.at.y_mm - flame.at.y_mm) < 1
