import { useQuery } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import { faceLoggedQuery } from '../../../api/queries'
import { useJob, useLive } from '../../../job/JobContext'
import { useShop } from '../../../job/ShopContext'
import { FaceMoments } from './FaceMoments'

/** Ours: a face that is being heated is worked out anew so often, in min of the job clock. */
const ANEW_MIN = 2

/** The face as it was heated since it was lit, by what was said and read. */
export function ByTheLog(): ReactNode {
  const { view } = useJob()
  const { live } = useLive()
  const { revision, units } = useShop()
  const since = Math.floor((live?.minutes ?? 0) / ANEW_MIN)
  const asked = useQuery(faceLoggedQuery(view.id, view.revision, revision, units, since))
  const heat = asked.data?.heat
  if (asked.isPending) return <p className="min-h-[40vh] text-ash">The log is being worked out.</p>
  if (heat == null) return <p className="text-ash">Nothing is logged of it yet.</p>
  return (
    <>
      <h3 className="text-[24px] leading-7" data-testid="face-logged">
        {heat.sentence}
      </h3>
      <p className="text-ash">{heat.beneath}</p>
      <div className="mt-2 max-w-[820px]">
        <FaceMoments heat={heat} now={null} old={asked.isPlaceholderData} put={null} path={[]} />
      </div>
      <p className="small mt-1 text-ash">{heat.not_in_it}</p>
    </>
  )
}
