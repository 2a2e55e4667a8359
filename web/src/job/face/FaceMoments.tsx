import { useId, useState, type ReactNode } from 'react'
import type { Schemas } from '../../api/client'
import { themeOf, useShop } from '../ShopContext'
import { FacePicture } from './FacePicture'
import type { At } from './picture'

export interface FaceMomentsProps {
  heat: Schemas['FaceHeat']
  /** The moment that is now; nothing where none is. */
  now: number | null
  /** Which is seen at first; the last where nothing is said. */
  first?: number
  /** It is being worked out anew. */
  old: boolean
  /** Where the flame was put; as it was at each moment where it is shown as it was. */
  put: At | null
  /** Along these it is swept. */
  path: readonly At[]
  onFlame?: (at: At, moved: boolean) => void
}

/** A face with its heat, scrubbed through its moments. */
export function FaceMoments({ heat, now, first, old, put, path, onFlame }: FaceMomentsProps): ReactNode {
  const shop = useShop()
  const id = useId()
  const [chosen, setChosen] = useState<number | null>(null)
  const last = heat.moments.length - 1
  const at = Math.min(chosen ?? now ?? first ?? last, last)
  const moment = heat.moments[at]
  if (moment === undefined) return null
  const words =
    at === now && !heat.logged ? `Now, as it was read: ${moment.words.toLowerCase()}` : moment.words
  return (
    <div className={old ? 'opacity-70' : ''}>
      <FacePicture
        heat={heat}
        moment={moment}
        put={heat.logged ? (moment.flame ?? null) : put}
        path={path}
        theme={themeOf(shop)}
        {...(onFlame === undefined ? {} : { onFlame })}
      />
      <label htmlFor={id} className="mt-1 flex items-center gap-3">
        <b className="min-w-[9ch]">{words}</b>
        <input
          id={id}
          type="range"
          min={0}
          max={last}
          value={at}
          onChange={(event) => setChosen(Number(event.target.value))}
          aria-valuetext={`${words}: ${moment.told}`}
          className="h-11 grow accent-[var(--chalk)]"
        />
      </label>
      <p data-testid="face-told">{moment.told}</p>
    </div>
  )
}
