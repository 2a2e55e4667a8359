import type { ReactNode } from 'react'
import { useJob } from '../../job/JobContext'
import { useShop } from '../../job/ShopContext'
import { day } from '../../quantity/show'
import { useHot } from '../../ui/hot'

/** The top of each paper: what it is, of which job, from when. */
export function PaperHead({ what }: { what: string }): ReactNode {
  const { view, typed } = useJob()
  const shop = useShop()
  const hot = useHot()
  const owner = typed('part.owner')
  const words = [
    owner === '' ? '' : `of ${owner}`,
    view.plan.body_words,
    `round ${view.job.rounds.length}`,
  ].filter((word) => word !== '' && word !== 'not known')
  return (
    <header className="border-b-2 border-chalk pb-1">
      <div className="flex items-baseline justify-between gap-4">
        <h1 className="text-[26px] leading-8">{view.name}</h1>
        <span className="text-right">
          {what}
          {shop.name !== '' && `, ${shop.name}`}
        </span>
      </div>
      <p className="flex justify-between gap-4">
        <span>{words.join(', ')}</span>
        <span className="shrink-0">Printed {day(view.now_ms, shop)}</span>
      </p>
      {view.practice != null && (
        <p className="my-1 border-2 border-dashed border-chalk px-1">
          <b>Practice on a made-up part. No repair.</b>
        </p>
      )}
      {hot !== '' && (
        <p className="my-1 border-2 border-chalk px-1">
          <b>
            {hot}. The part was hot when this was printed, {day(view.now_ms, shop)}.
          </b>
        </p>
      )}
    </header>
  )
}
