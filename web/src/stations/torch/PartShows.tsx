import type { ReactNode } from 'react'
import { useJob } from '../../job/JobContext'
import { useAlone } from '../../job/useAlone'
import { shownByPart } from './part-shows'

/** What the made-up part of a practice shows by itself, and with the plan what may be behind it and what to do. */
export function PartShows(): ReactNode {
  const { view } = useJob()
  const alone = useAlone()
  if (view.practice == null) return null
  const known = view.plan.torch?.trouble ?? []
  return shownByPart(view.job.rounds.at(-1)?.log ?? []).map((seen) => {
    const found = known.find((it) => it.seen === seen)
    const cause = found?.causes[0]
    return (
      <div key={seen} role="alert" className="border-2 border-chalk px-3 py-2" data-testid="part-shows">
        <b className="text-[22px] leading-7">{found?.words ?? seen.replaceAll('_', ' ')}.</b>
        {!alone && cause !== undefined && (
          <p className="text-[17px]">
            Most likely: {cause.words.toLowerCase()}
            {cause.because === '' ? '' : `, ${cause.because}`}. {cause.act}
          </p>
        )}
      </div>
    )
  })
}
