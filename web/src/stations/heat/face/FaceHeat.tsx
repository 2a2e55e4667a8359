import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useId, useState, type ReactNode } from 'react'
import { beginningsQuery, faceHeatQuery } from '../../../api/queries'
import { useJob } from '../../../job/JobContext'
import { themeOf, useShop } from '../../../job/ShopContext'
import { FacePicture } from './FacePicture'
import { useSettled } from './useSettled'
import { WhereToBegin } from './WhereToBegin'
import type { At } from './picture'

/** The drawn face as it is heated, scrubbed through time; where none is reckoned, `otherwise`, and why. */
export function FaceHeat({ otherwise }: { otherwise: ReactNode }): ReactNode {
  const { view } = useJob()
  const shop = useShop()
  const id = useId()
  const [flame, setFlame] = useState<{ at: At | null; swept: boolean }>({ at: null, swept: false })
  const [chosen, setChosen] = useState<number | null>(null)
  const stand = [view.id, view.revision, shop.revision, shop.units] as const
  const settled = useSettled(flame)
  const drawn = view.plan.map.faces.some((face) => face.rims.length > 0 && face.lines.length > 0)
  const seen = useQuery({
    ...faceHeatQuery(...stand, settled),
    enabled: drawn,
    placeholderData: keepPreviousData,
  })
  const heat = seen.data?.heat ?? null
  const begun = useQuery({ ...beginningsQuery(...stand), enabled: heat !== null })
  if (drawn && seen.isPending) return <p className="min-h-[40vh] text-ash">The face is being worked out.</p>
  if (heat === null) {
    const why = seen.data?.why_not ?? ''
    return (
      <>
        {why !== '' && <p className="small text-ash">{why}</p>}
        {otherwise}
      </>
    )
  }
  const last = heat.moments.length - 1
  const at = Math.min(chosen ?? last, last)
  const moment = heat.moments[at]
  if (moment === undefined) return otherwise
  return (
    <section aria-label="The face as it is heated" className="pt-1">
      <h3 className="text-[24px] leading-7" data-testid="face-sentence">
        {heat.sentence}
      </h3>
      <p className="text-ash">{heat.beneath}</p>
      <div className="mt-2 grid grid-cols-[minmax(0,1.7fr)_minmax(0,1fr)] gap-x-6 gap-y-3 max-bench:grid-cols-1">
        <div className={seen.isPlaceholderData ? 'opacity-70' : ''}>
          <FacePicture
            heat={heat}
            moment={moment}
            put={flame.at ?? heat.flame}
            theme={themeOf(shop)}
            onFlame={(place) => setFlame({ at: place, swept: false })}
          />
          <label htmlFor={id} className="mt-1 flex items-center gap-3">
            <b className="min-w-[9ch] whitespace-nowrap">{moment.words}</b>
            <input
              id={id}
              type="range"
              min={0}
              max={last}
              value={at}
              onChange={(event) => setChosen(Number(event.target.value))}
              aria-valuetext={`${moment.words}: ${moment.told}`}
              className="h-11 grow accent-[var(--chalk)]"
            />
          </label>
          <p data-testid="face-told">{moment.told}</p>
        </div>
        <WhereToBegin
          beginnings={begun.data?.beginnings ?? null}
          flame={{ at: flame.at ?? heat.flame, swept: flame.swept }}
          onChoose={(place) => setFlame({ at: place.at, swept: place.swept })}
        />
      </div>
      <p className="small mt-1 text-ash">{heat.not_in_it}</p>
    </section>
  )
}
