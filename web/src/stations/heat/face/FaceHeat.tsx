import { useState, type ReactNode } from 'react'
import { useQuery } from '@tanstack/react-query'
import { beginningsQuery } from '../../../api/queries'
import type { Schemas } from '../../../api/client'
import { useJob, useLive } from '../../../job/JobContext'
import { themeOf, useShop } from '../../../job/ShopContext'
import { useAlone } from '../../../job/useAlone'
import { Choice } from '../../../ui/Choice'
import { Begins } from './Begins'
import { ByTheLog } from './ByTheLog'
import { FaceTold, type Told } from './FaceTold'
import { FaceMoments } from '../../../job/face/FaceMoments'
import { FacePicture } from '../../../job/face/FacePicture'
import { heldAt, isAlong, lastMoved, sweptOn, UNSAID } from './flame'
import { NotInIt } from './NotInIt'
import { useHeatThere } from './useHeatThere'
import { useSettled } from './useSettled'
import { WhereToBegin } from './WhereToBegin'
import { nowAmong, type At } from '../../../job/face/picture'

type FlamePlace = Schemas['FlamePlace']

const SHOWN = [
  { id: 'logged', label: 'By the log' },
  { id: 'planned', label: 'As it would go from cold' },
]

/** A moment of which nothing is told: where the flame is, and no more. */
const untold = (moment: Schemas['FaceMoment']): Schemas['FaceMoment'] => ({
  ...moment,
  celsius: moment.celsius.map(() => 20),
  flame_words: '',
  tips: [],
  places: [],
})

const untoldOf = (isLost: boolean): Told => ({
  sentence: `What that asks of the cracks ${isLost ? 'could not be asked for' : 'is being worked out'}.`,
  beneath: '',
})

/** The drawn face as it is heated, scrubbed through time; where none is reckoned, `otherwise`, and why. */
export function FaceHeat({ otherwise }: { otherwise: ReactNode }): ReactNode {
  const { view, say } = useJob()
  const { live } = useLive()
  const alone = useAlone()
  const shop = useShop()
  const [flame, setFlame] = useState(UNSAID)
  const [along, setAlong] = useState(false)
  const [shown, setShown] = useState<'planned' | 'logged'>('logged')
  const lit = view.job.rounds.at(-1)?.lit != null
  const stand = [view.id, view.revision, shop.revision, shop.units] as const
  // Arrows go on moving it; a finger has put it where it stays.
  const [moving, setMoving] = useState(false)
  const settled = useSettled(flame, moving)
  const drawn = view.plan.map.faces.some((face) => face.rims.length > 0 && face.lines.length > 0)
  const there = useHeatThere(stand, settled, drawn)
  const { heat, why, isPending, isOld, isJudged, isLost, wasJudged } = there
  // It takes seconds: what is asked of the crack here is said first.
  const begun = useQuery({
    ...beginningsQuery(...stand),
    enabled: heat !== null && (wasJudged || isLost) && !alone,
  })
  if (drawn && isPending) return <p className="min-h-[40vh] text-ash">The face is being worked out.</p>
  if (heat === null) {
    return (
      <>
        {why !== '' && <p className="small text-ash">{why}</p>}
        {otherwise}
      </>
    )
  }
  const now = lit ? nowAmong(heat.moments, live?.celsius ?? null) : null
  const moment = heat.moments.at(-1)
  if (moment === undefined) return otherwise
  const put = (place: FlamePlace | null) => say({ kind: 'put_flame', flame: place }, null)
  // Where it was put, also while the heat there is still on its way.
  const here = {
    face: heat.face,
    at: flame.at ?? heat.flame,
    swept: flame.at == null ? heat.swept : flame.swept === true,
  }
  const putAt = (place: At, moved: boolean) => {
    setMoving(moved)
    setFlame((was) => {
      if (!along) return heldAt(place)
      return moved ? lastMoved(was, place) : sweptOn(was, heat.flame, place)
    })
  }
  const begins = (
    <Begins
      said={heat.said && !isOld}
      along={along}
      line={isAlong(flame)}
      onPut={() => put(here)}
      onOpen={() => put(null)}
      onAlong={(on) => {
        setAlong(on)
        if (!on) setFlame(heldAt(flame.at ?? heat.flame))
      }}
    />
  )
  if (alone) {
    return (
      <section aria-label="Where the flame begins" className="flex flex-wrap items-start gap-x-8">
        <div className="min-w-[280px] grow basis-[400px] max-w-[560px]">
          <FacePicture
            heat={heat}
            moment={untold(moment)}
            put={flame.at ?? heat.flame}
            path={[]}
            theme={themeOf(shop)}
            onFlame={(place) => setFlame(heldAt(place))}
          />
        </div>
        {begins}
      </section>
    )
  }
  return (
    <section aria-label="The face as it is heated" className="pt-1">
      {lit && (
        <Choice
          label="Which heat is shown"
          choices={SHOWN}
          chosen={shown}
          onChoose={(id) => setShown(id === 'logged' ? 'logged' : 'planned')}
        />
      )}
      {lit && shown === 'logged' ? (
        <ByTheLog />
      ) : (
        <>
          <FaceTold told={isJudged ? heat : untoldOf(isLost)} before={isJudged ? null : there.judged} />
          <div className="mt-2 grid grid-cols-[minmax(0,1.7fr)_minmax(0,1fr)] gap-x-6 gap-y-3 max-bench:grid-cols-1">
            <FaceMoments
              heat={heat}
              now={now}
              old={isOld}
              put={flame.at ?? heat.flame}
              path={flame.path ?? []}
              onFlame={putAt}
            />
            <div>
              <WhereToBegin
                beginnings={begun.data?.beginnings ?? null}
                isLost={begun.isError}
                flame={{ at: flame.at ?? heat.flame, swept: flame.swept === true }}
                onChoose={(place) => setFlame({ at: place.at, swept: place.swept, path: [] })}
              />
              {begins}
            </div>
          </div>
          <NotInIt words={heat.not_in_it} tried={begun.data?.beginnings?.tried} />
        </>
      )}
    </section>
  )
}
