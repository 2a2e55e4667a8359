import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useId, useState, type ReactNode } from 'react'
import { beginningsQuery, faceHeatQuery } from '../../../api/queries'
import type { Schemas } from '../../../api/client'
import { useJob, useLive } from '../../../job/JobContext'
import { themeOf, useShop } from '../../../job/ShopContext'
import { useAlone } from '../../../job/useAlone'
import { Button } from '../../../ui/Button'
import { FacePicture } from './FacePicture'
import { useSettled } from './useSettled'
import { WhereToBegin } from './WhereToBegin'
import { nowAmong, type At } from './picture'

type FlamePlace = Schemas['FlamePlace']

/** A moment of which nothing is told: where the flame is, and no more. */
const untold = (moment: Schemas['FaceMoment']): Schemas['FaceMoment'] => ({
  ...moment,
  celsius: moment.celsius.map(() => 20),
  flame_words: '',
  tips: [],
  places: [],
})

/** The drawn face as it is heated, scrubbed through time; where none is reckoned, `otherwise`, and why. */
export function FaceHeat({ otherwise }: { otherwise: ReactNode }): ReactNode {
  const { view, say } = useJob()
  const { live } = useLive()
  const alone = useAlone()
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
  const begun = useQuery({ ...beginningsQuery(...stand), enabled: heat !== null && !alone })
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
  const now = view.job.rounds.at(-1)?.lit == null ? null : nowAmong(heat.moments, live?.celsius ?? null)
  const at = Math.min(chosen ?? now ?? last, last)
  const moment = heat.moments[at]
  if (moment === undefined) return otherwise
  const put = (place: FlamePlace | null) => say({ kind: 'put_flame', flame: place }, null)
  // Where it was put, also while the heat there is still on its way.
  const here = {
    face: heat.face,
    at: flame.at ?? heat.flame,
    swept: flame.at === null ? heat.swept : flame.swept,
  }
  const begins = (
    <Begins said={heat.said && !seen.isPlaceholderData} onPut={() => put(here)} onOpen={() => put(null)} />
  )
  if (alone) {
    return (
      <section aria-label="Where the flame begins" className="flex flex-wrap items-start gap-x-8">
        <div className="min-w-[280px] grow basis-[400px] max-w-[560px]">
          <FacePicture
            heat={heat}
            moment={untold(moment)}
            put={flame.at ?? heat.flame}
            theme={themeOf(shop)}
            onFlame={(place) => setFlame({ at: place, swept: false })}
          />
        </div>
        {begins}
      </section>
    )
  }
  const words = at === now ? `Now, as it was read: ${moment.words.toLowerCase()}` : moment.words
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
        <div>
          <WhereToBegin
            beginnings={begun.data?.beginnings ?? null}
            flame={{ at: flame.at ?? heat.flame, swept: flame.swept }}
            onChoose={(place) => setFlame({ at: place.at, swept: place.swept })}
          />
          {begins}
        </div>
      </div>
      <p className="small mt-1 text-ash">{heat.not_in_it}</p>
    </section>
  )
}

interface BeginsProps {
  said: boolean
  onPut: () => void
  onOpen: () => void
}

/** Whether it is said that the flame begins where it is shown. */
function Begins({ said, onPut, onOpen }: BeginsProps): ReactNode {
  if (!said)
    return (
      <div className="pt-2">
        <Button onPress={onPut}>Begin here</Button>
      </div>
    )
  return (
    <div className="flex flex-wrap items-center gap-x-4 pt-2" data-testid="begins">
      <b>Here it begins.</b>
      <Button onPress={onOpen}>Leave it open</Button>
    </div>
  )
}
